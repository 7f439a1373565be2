// Offers the reader's own time zone first. The page is whole without this.
const form = document.querySelector('[data-zone-form]');
const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
const select = form && form.querySelector('select');
const option = select && [...select.options].find((o) => o.value === own);
if (option && select.value !== own) {
  select.value = own;
  const button = form.querySelector('button');
  const direct = document.createElement('button');
  direct.type = 'button';
  direct.textContent = 'Show my time (' + own.replace(/_/g, ' ') + ')';
  direct.addEventListener('click', () => button.click());
  form.closest('details').before(direct);
}
