/** What something takes of the processor, whatever else the machine does meanwhile. @returns ms */
export function processor(act) {
  const before = process.cpuUsage();
  act();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}
