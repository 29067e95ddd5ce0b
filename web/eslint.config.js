import prettier from '@vue/eslint-config-prettier/skip-formatting'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'
import vue from 'eslint-plugin-vue'

export default defineConfigWithVueTs(
  { ignores: ['dist/**', 'gen/**', 'src/shared/api/schema.gen.ts'] },
  vue.configs['flat/recommended'],
  vueTsConfigs.recommended,
  prettier,
  { rules: { 'vue/multi-word-component-names': 'off', 'vue/require-default-prop': 'off', 'no-console': 'error' } },
)
