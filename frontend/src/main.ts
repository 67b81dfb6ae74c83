import '@fontsource-variable/archivo/wdth.css'
import 'element-plus/theme-chalk/base.css'
import 'element-plus/theme-chalk/el-message.css'
import 'element-plus/theme-chalk/el-message-box.css'
import './theme/tokens.css'

import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'

import App from './App.vue'
import { router } from './router'

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } })
createApp(App).use(router).use(VueQueryPlugin, { queryClient: queries }).mount('#app')
