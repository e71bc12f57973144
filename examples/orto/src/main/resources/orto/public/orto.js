async function send(form, address, body) {
  const message = form.querySelector('.message');
  message.textContent = '';
  const answer = await fetch(address, { method: 'POST', body: JSON.stringify(body) });
  const said = await answer.json();
  if (answer.ok) location.reload();
  else {
    message.className = 'message bad';
    message.textContent = said.error;
  }
}

function whenSent(id, act) {
  const form = document.getElementById(id);
  form?.addEventListener('submit', (event) => {
    event.preventDefault();
    act(form, Object.fromEntries(new FormData(form)));
  });
}

whenSent('swap', (form, days) => send(form, '/api/rota/swaps', days));
whenSent('loan', (form, { seed, neighbour }) => send(form, `/api/seeds/${seed}/loans`, { neighbour }));

const scripts = {
  takeKey: (form, who) => send(form, '/api/shed/key', who),
};
whenSent('key', (form, who) => scripts[form.dataset.script](form, who));

/** The curve of the heap's temperature, once its readings are there. */
async function drawCurve(chart) {
  const readings = await (await fetch('/api/compost')).json();
  const points = readings.reverse().map(({ day, celsius }) => `${day * 30},${90 - celsius}`).join(' ');
  chart.innerHTML = `<polyline points="${points}"/>`;
}
const chart = document.querySelector('.chart');
if (chart) drawCurve(chart);
