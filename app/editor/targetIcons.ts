import { mdiEmailOutline, mdiFileOutline, mdiOpenInNew, mdiPhoneOutline, mdiTextBoxOutline } from '@mdi/js'
import type { Target } from '~~/core/page/schema'

export const TARGET_ICONS: Record<Target['kind'], string> = { file: mdiFileOutline, page: mdiTextBoxOutline, address: mdiOpenInNew, email: mdiEmailOutline, phone: mdiPhoneOutline }
