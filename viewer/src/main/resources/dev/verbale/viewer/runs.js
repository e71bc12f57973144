// Puts in what comes: a run that began, or one that went on. What somebody looks at stays where it is.
const list = document.querySelector('tbody');
const none = document.querySelector('.none');
const state = document.querySelector('.state');
const wanted = new URLSearchParams(location.search).get('tag');
const tagged = document.querySelector('.tagged');
tagged.hidden = !wanted;
tagged.querySelector('b').textContent = wanted;
const shown = () => {
  for (const row of list.children) row.hidden = wanted && !row.dataset.tags.split(', ').includes(wanted);
  none.hidden = list.children.length > 0;
};
// Cell by cell: a click on a link that is taken away while the button is down would lead nowhere.
const write = (row, fresh) => {
  for (const { name, value } of fresh.attributes) row.setAttribute(name, value);
  [...fresh.cells].forEach((cell, i) => cell.isEqualNode(row.cells[i]) || row.cells[i].replaceWith(cell));
};
const events = new EventSource('events');
events.addEventListener('run', ({ data }) => {
  const { name, row } = JSON.parse(data);
  const holder = document.createElement('template');
  holder.innerHTML = row; // made by the viewer, which escapes what others wrote
  const fresh = holder.content.firstElementChild;
  const rows = [...list.children];
  const old = rows.find((one) => one.dataset.run === name);
  const had = old?.contains(document.activeElement);
  if (old) write(old, fresh);
  else list.insertBefore(fresh, rows.find((one) => one.dataset.run < name) ?? null);
  if (had && !old.contains(document.activeElement)) old.querySelector('a').focus();
  shown();
});
events.onerror = () => (state.textContent = 'No answer; the list is as it was.');
events.onopen = () => (state.textContent = '');
shown();
