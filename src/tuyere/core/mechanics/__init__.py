"""The handbook: belts and wheels as bare numbers, SI, without any kind of drive."""
