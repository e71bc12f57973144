// The summary that stands in the file itself, for whoever runs no script: by their own choice, or since the page's host forbids it, which noscript
// knows nothing of. The page takes its place.
export const page = document.getElementById('page')!;
export const plainSummary = page.innerHTML;
page.textContent = '';
