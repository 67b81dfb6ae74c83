<script setup lang="ts">
import type { Standing } from '../../sheet/useKeepSurvey'

/** How a survey stands once there is one on the record, and why. */
const standing = defineModel<Standing>('standing', { required: true })
const reason = defineModel<string>('reason', { required: true })
</script>

<template>
  <el-select v-model="standing" aria-label="How it stands" class="standing">
    <el-option label="As found" value="as found" />
    <el-option label="As left: parts changed" value="as left" />
    <el-option label="Corrected entry" value="corrected" />
  </el-select>
  <el-input v-model="reason" maxlength="400" aria-label="Why" placeholder="why, in a few words" class="why" />
</template>

<style scoped>
.standing {
  width: 170px;
}
.why {
  flex: 1;
  min-width: 120px;
}
</style>
