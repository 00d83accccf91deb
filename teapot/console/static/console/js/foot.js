/* Runs while the page is still being read: the first thing painted is the foot of the run. */
(() => {
  const scroller = document.getElementById("scroll");
  scroller.scrollTop = scroller.scrollHeight;
  performance.mark("at-foot");
})();
