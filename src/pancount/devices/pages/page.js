/** The page of a simulated device: buttons touch it, and what it says is shown. */
const shown = document.querySelector('output')
const bytes = document.querySelector('code')

async function touch(does, value = 0) {
  const answer = await fetch('/touch', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ does, value }) })
  tell(await answer.json())
}

function tell(now) {
  shown.textContent = 'load_g' in now ? `${now.load_g.toFixed(1)} g on it` : `${now.around_c.toFixed(1)} °C around it`
  bytes.textContent = now.bytes ? now.bytes.match(/../g).join(' ') : 'silent'
  for (const button of document.querySelectorAll('[data-shows]')) button.setAttribute('aria-pressed', String(now[button.dataset.shows] === (button.dataset.when === 'true')))
}

for (const button of document.querySelectorAll('[data-does]')) {
  const { does, value, hold, from } = button.dataset
  const amount = () => (from ? Number(document.getElementById(from).value.replace(',', '.')) || 0 : Number(value ?? 0))
  if (hold) {
    button.addEventListener('pointerdown', () => touch(does, amount()))
    for (const kind of ['pointerup', 'pointerleave', 'blur']) button.addEventListener(kind, () => touch(does, 0))
  } else button.addEventListener('click', () => touch(does, amount()))
}
setInterval(async () => {
  try { tell(await (await fetch('/now')).json()) } catch { bytes.textContent = 'the device has gone' }
}, 400)
