<script setup lang="ts">
// A season in numbers as one picture and one page, made here: nothing is sent anywhere.
import { computed, ref, useTemplateRef } from 'vue'
import fontFile from '@fontsource-variable/archivo/files/archivo-latin-wdth-normal.woff2?url'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { useAttempt } from '@/shared/ui/useAttempt'
import { useDisplayStore } from '@/shared/units/store'
import type { Season } from '../api'
import { cardOf, pageOf } from '../logic/share'

const props = defineProps<{ season: Season }>()
const WIDTH = 800
const HEIGHT = 560
const display = useDisplayStore()
const { problem, attempt } = useAttempt()
const withPlaces = ref(false)
const drawing = useTemplateRef<SVGSVGElement>('drawing')
const card = computed(() => cardOf(props.season, withPlaces.value, display.units))
const most = computed(() => Math.max(...card.value.months.map((month) => month.landed), 1))
const step = computed(() => (WIDTH - 80) / Math.max(card.value.months.length, 1))
const figureX = (i: number): number => 40 + (i * (WIDTH - 80)) / card.value.figures.length

/** The drawing with its own font in it, so that it looks the same wherever it is opened. */
async function standing(): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(fontFile)).arrayBuffer())
  let text = ''
  for (const byte of bytes) text += String.fromCharCode(byte)
  const copy = drawing.value!.cloneNode(true) as SVGSVGElement
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style')
  style.textContent = `@font-face{font-family:"Archivo Variable";src:url(data:font/woff2;base64,${btoa(text)})}`
  copy.prepend(style)
  copy.setAttribute('width', String(WIDTH))
  copy.setAttribute('height', String(HEIGHT))
  return new XMLSerializer().serializeToString(copy)
}
function save(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
const savePage = (): Promise<void> =>
  attempt(async () => save(new Blob([pageOf(card.value, await standing())], { type: 'text/html' }), 'season.html'))
const savePicture = (): Promise<void> =>
  attempt(async () => {
    const image = new Image()
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(await standing())}`
    await image.decode()
    const canvas = document.createElement('canvas')
    canvas.width = 2 * WIDTH
    canvas.height = 2 * HEIGHT
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'))
    if (!blob) throw new Error('This browser could not draw the picture: save the page instead.')
    save(blob, 'season.png')
  })
</script>

<template>
  <details class="share" data-test="share">
    <summary>The season in numbers, to give away</summary>
    <ErrorNote :text="problem" />
    <label class="switch"><input v-model="withPlaces" type="checkbox" data-test="share-places" /> with the waters' names</label>
    <!-- Its colours are its own: it leaves the app. -->
    <svg
      ref="drawing"
      xmlns="http://www.w3.org/2000/svg"
      :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
      font-family="'Archivo Variable', sans-serif"
      role="img"
      :aria-label="`${card.title}: ${card.figures.map((figure) => `${figure.value} ${figure.label}`).join(', ')}. ${card.lines.join(' ')}`"
    >
      <rect :width="WIDTH" :height="HEIGHT" fill="#f2f6f7" />
      <rect width="10" :height="HEIGHT" fill="#0b1418" />
      <text x="40" y="62" font-size="34" font-weight="720" fill="#0b1418">{{ card.title }}</text>
      <g v-for="(figure, i) in card.figures" :key="figure.label">
        <text :x="figureX(i)" y="142" font-size="52" font-weight="680" fill="#0b1418">{{ figure.value }}</text>
        <text :x="figureX(i)" y="168" font-size="17" fill="#34454d">{{ figure.label }}</text>
      </g>
      <g v-for="(month, i) in card.months" :key="month.name">
        <rect
          :x="40 + i * step + step * 0.15"
          :y="380 - (150 * month.landed) / most"
          :width="step * 0.7"
          :height="(150 * month.landed) / most"
          fill="#0b1418"
        />
        <text :x="40 + (i + 0.5) * step" :y="372 - (150 * month.landed) / most" font-size="16" text-anchor="middle" fill="#0b1418">
          {{ month.landed }}
        </text>
        <text :x="40 + (i + 0.5) * step" y="402" font-size="16" text-anchor="middle" fill="#34454d">{{ month.name }}</text>
      </g>
      <line x1="40" :x2="WIDTH - 40" y1="380" y2="380" stroke="#0b1418" />
      <text v-for="(words, i) in card.lines" :key="words" x="40" :y="444 + 28 * i" font-size="19" fill="#0b1418">{{ words }}</text>
    </svg>
    <p class="label">Landed, by month. Made on this device; nothing is sent anywhere.</p>
    <div class="row">
      <v-btn class="solid" data-test="share-picture" @click="savePicture">Save as a picture</v-btn>
      <v-btn data-test="share-page" @click="savePage">Save as a page</v-btn>
    </div>
  </details>
</template>

<style scoped>
.share {
  padding: 12px;
  background: var(--frost);
}
summary {
  min-height: 44px;
  cursor: pointer;
  font-weight: 640;
}
svg {
  display: block;
  width: 100%;
  max-width: 640px;
  border: 1px solid var(--line);
}
.row {
  display: flex;
  gap: 8px;
  padding-top: 8px;
}
.v-btn {
  --v-btn-height: 48px;
}
</style>
