import type { FileItem } from '../../../core/files/fileItem'
import type { Speech } from '../../../core/language/speech'
import type { Appearance } from '../../../core/look/appearance'
import type { SiteStyle } from '../../../core/look/siteStyle'
import type { PageDocument } from '../../../core/page/schema'
import type { SignpostItem } from '../../../core/signposts/signpostItem'
import type { WalkedCatalogue, WalkedFile } from '../../../core/walk/facts'
import type { Standing } from '../gates/standing'

/** One side of a page that is walked. */
export interface WalkedSide {
  pageId: string
  edge: boolean
  document: PageDocument
}

/** What is gathered once for all pages of one walk. */
export interface Ground {
  pages: Map<string, { id: string; slug: string; title: string; live: boolean; gate: string | null }>
  standing: Standing
  signposts: Map<string, SignpostItem>
  looks: Map<string, Appearance>
  style: SiteStyle
  speech: Speech
  catalogues: Map<string, WalkedCatalogue>
  /** files that were met so far, those in the bin too, and what is known of them */
  items: Map<string, FileItem>
  files: Map<string, WalkedFile>
}
