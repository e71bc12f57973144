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
