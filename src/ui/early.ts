/**
 * Runs before anything of the page's own is there: keeps what is typed, picked and pressed meanwhile, and does it again once whatever it was
 * done to answers. As text, because it stands in the page itself; the page's policy lets it run by its nonce.
 *
 * Typing and picking stay in the field by themselves and only have to be told. A press of a button, or a form sent by Enter, would be lost: it
 * is kept from the browser, marked on the button, and pressed again. Links and what folds open work by themselves and are let be.
 */
export const EARLY = `(() => {
  const REACT = "__reactProps$";
  const taken = [];
  let isOver = false;
  const answers = (node) => Object.keys(node).some((key) => key.startsWith(REACT));
  const fieldOf = (target) => (target instanceof Element ? target.closest("input, select, textarea") : null);
  const buttonOf = (target) => (target instanceof Element ? target.closest("button, [role=button], [role=radio]") : null);
  const isTurned = (field) => field.type === "checkbox" || field.type === "radio";
  const told = (field) => {
    if (!field) return;
    const last = taken.find((one) => one.node === field);
    // Typed on after the page has begun to answer, and before it was told of what came before.
    if (answers(field) && !last) return;
    if (last) last.value = isTurned(field) ? field.checked : field.value;
    else taken.push({ kind: "field", node: field, value: isTurned(field) ? field.checked : field.value });
  };
  const onField = (event) => told(fieldOf(event.target));
  const onClick = (event) => {
    const button = buttonOf(event.target);
    if (!button || answers(button) || button.disabled) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    button.setAttribute("aria-busy", "true");
    taken.push({ kind: "press", node: button });
  };
  const onSubmit = (event) => {
    if (answers(event.target)) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    taken.push({ kind: "send", node: event.target, by: event.submitter });
  };
  const tell = ({ node, value }) => {
    if (node.type === "file") {
      node.dispatchEvent(new Event("change", { bubbles: true }));
      return;
    }
    const kind = Object.getPrototypeOf(node);
    if (isTurned(node)) {
      if (node.checked !== value) node.click();
      else {
        // It looks right already and the page does not know: turned back unseen, then pressed.
        Object.getOwnPropertyDescriptor(kind, "checked").set.call(node, !value);
        node._valueTracker?.setValue(String(!value));
        node.click();
      }
      return;
    }
    Object.getOwnPropertyDescriptor(kind, "value").set.call(node, value);
    node._valueTracker?.setValue(value + "\\u0000");
    node.dispatchEvent(new Event("input", { bubbles: true }));
    node.dispatchEvent(new Event("change", { bubbles: true }));
  };
  const again = (one) => {
    const { kind, node } = one;
    node.removeAttribute("aria-busy");
    if (kind === "field") tell(one);
    else if (kind === "press") node.dispatchEvent(new MouseEvent("click", { bubbles: true, cancelable: true }));
    else node.requestSubmit(one.by ?? undefined);
  };
  const LONGEST = 60000;
  const isAllAlive = () => [...document.querySelectorAll("button, input, select, textarea")].every(answers);
  const replay = () => {
    if (taken.length > 0 && (answers(taken[0].node) || !taken[0].node.isConnected)) {
      const one = taken.shift();
      // What the page does on its first paint is done by then; what it draws for one press is there for the next.
      if (one.node.isConnected) setTimeout(() => { again(one); setTimeout(replay, 60); }, 60);
      else replay();
      return;
    }
    if (taken.length === 0 && isOver && isAllAlive()) return stop();
    if (performance.now() < LONGEST) setTimeout(replay, 50);
    else stop();
  };
  const stop = () => {
    for (const [name, listener] of listeners) removeEventListener(name, listener, true);
  };
  const listeners = [["input", onField], ["change", onField], ["click", onClick], ["submit", onSubmit]];
  for (const [name, listener] of listeners) addEventListener(name, listener, true);
  addEventListener("zygometer:ready", () => { isOver = true; }, { once: true });
  replay();
})();`;
