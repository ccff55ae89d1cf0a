import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { appearanceCss } from '~~/core/look/buttonCss'
import { appearanceOf, hasOverrides, type Worn } from '~~/core/look/styles'

/** How a button of the open page looks: its appearance, its class, and rules of its own where it differs from its look. */
export function useWorn(of: MaybeRefOrGetter<Worn & { placement: string }>) {
  const looks = useLooks()
  const worn = computed(() => toValue(of))
  const appearance = computed(() => appearanceOf(worn.value, id => looks.byId.get(id)?.appearance))
  const isOwn = computed(() => hasOverrides(worn.value))
  const className = computed(() => (isOwn.value ? `tr-own-${worn.value.placement}` : `tr-look-${looks.lookOf(worn.value.look).id}`))
  const ownCss = computed(() => (isOwn.value ? appearanceCss(className.value, appearance.value, looks.pictureOf) : ''))
  return { appearance, className, ownCss }
}
