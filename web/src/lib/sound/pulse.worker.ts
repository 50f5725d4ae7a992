// A page in the background has its timers slowed to one a second; a worker's keep time.
const pulseEvery = 20;

setInterval(() => postMessage(null), pulseEvery);
