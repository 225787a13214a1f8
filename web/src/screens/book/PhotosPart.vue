<script setup lang="ts">
/** A bake's photos: added from the camera or from files, cropped square or not, told of, removed. */
import { ref, watch } from 'vue'
import { changePhoto, dropPhoto, photoAddress, PHOTO_KINDS, sendPhoto } from './photos'
import type { PhotoHead } from '@/api/client'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import RefusedNote from '@/design/RefusedNote.vue'

export interface PhotosPartProps {
  bake: string
  photos: readonly PhotoHead[]
  name: string
}
const props = defineProps<PhotosPartProps>()
const emit = defineEmits<{ changed: [] }>()
const { refused, attempt } = useAttempt()
const sending = ref(0)
const chosen = ref<HTMLInputElement>()
const camera = ref<HTMLInputElement>()
const open = ref<PhotoHead | null>(null)
const caption = ref('')
watch(open, (now) => (caption.value = now?.caption ?? ''))

async function add(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const files = [...(field.files ?? [])]
  sending.value = files.length
  for (const file of files) {
    await attempt(() => sendPhoto(props.bake, crypto.randomUUID(), file, false))
    sending.value -= 1
    if (refused.value) break
  }
  sending.value = 0
  field.value = ''
  emit('changed')
}
const change = (photo: PhotoHead, what: Partial<PhotoHead>) => attempt(async () => {
  const now = await changePhoto(photo, what)
  if (open.value?.id === photo.id) open.value = now
  emit('changed')
})
const drop = (photo: PhotoHead) => attempt(async () => {
  const kept = await (await fetch(photoAddress(photo.id))).blob()
  await dropPhoto(photo)
  open.value = null
  emit('changed')
  tell('The photo is removed.', () => attempt(() => sendPhoto(props.bake, crypto.randomUUID(), kept, photo.square).then((made) => changePhoto(made, photo))).then(() => emit('changed')))
})
const described = (photo: PhotoHead, n: number) => photo.caption || `${props.name}, photo ${n + 1}`
</script>

<template>
  <section class="tray" aria-labelledby="photos-head">
    <div class="tray-head">
      <h2 id="photos-head">Photos</h2>
      <span class="row no-print">
        <input ref="camera" class="visually-hidden" type="file" accept="image/*" capture="environment" tabindex="-1" aria-label="Photo from the camera" @change="add" />
        <input ref="chosen" class="visually-hidden" type="file" :accept="PHOTO_KINDS" multiple tabindex="-1" aria-label="Photos from files" @change="add" />
        <el-button @click="camera?.click()">Camera</el-button><el-button @click="chosen?.click()">Files</el-button>
      </span>
    </div>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <p v-if="sending" class="quiet" role="status">Taking in {{ sending }} …</p>
    <p v-if="!photos.length && !sending" class="quiet">None yet. Where it was taken and with what is removed before it is kept.</p>
    <ul v-else class="photos">
      <li v-for="(photo, n) in photos" :key="photo.id">
        <button type="button" class="photo" :aria-label="`${described(photo, n)}: open`" @click="open = photo"><img :src="photoAddress(photo.id, true)" alt="" :class="{ square: photo.square }" :width="photo.width" :height="photo.height" loading="lazy" /></button>
        <small v-if="photo.caption" class="quiet">{{ photo.caption }}</small>
      </li>
    </ul>
    <el-dialog :model-value="open !== null" :title="open?.caption || 'Photo'" width="min(820px, 96vw)" align-center @close="open = null">
      <template v-if="open">
        <img class="large" :class="{ square: open.square }" :src="photoAddress(open.id)" :alt="described(open, photos.findIndex((one) => one.id === open?.id))" :width="open.width" :height="open.height" />
        <div class="row">
          <el-input v-model="caption" maxlength="300" placeholder="What is on it" aria-label="What is on it" @change="open && change(open, { caption })" />
          <el-switch :model-value="open.square" active-text="Square" aria-label="Shown square" @change="open && change(open, { square: Boolean($event) })" />
          <el-button text @click="open && drop(open)">Remove</el-button>
        </div>
      </template>
    </el-dialog>
  </section>
</template>

<style scoped>
.row { display: flex; gap: 8px; align-items: center }
.photos { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(110px, 1fr)); gap: 8px }
.photo { border: 2px solid var(--rim-soft); border-radius: 12px; padding: 0; background: none; overflow: hidden; cursor: pointer; width: 100%; display: block }
.photo:hover { border-color: var(--rim) }
img { display: block; width: 100%; height: auto }
.square { aspect-ratio: 1; object-fit: cover; height: auto }
.large { border-radius: 12px; max-height: 66vh; object-fit: contain; margin-bottom: 10px }
.large.square { object-fit: cover; width: min(66vh, 100%); margin-inline: auto }
</style>
