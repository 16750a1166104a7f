"""Runs two commands on one file, one after the other, and prints wall time, peak memory and their ratio."""
import resource, subprocess, sys, time, os

title, path, ours, reference = sys.argv[1:]


def run(command):
    start = time.time()
    process = subprocess.Popen(command.split() + [path], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    _, status, usage = os.wait4(process.pid, 0)
    if status != 0:
        sys.exit(f"{command} failed")
    return time.time() - start, usage.ru_maxrss / 1024


(a, ma), (b, mb) = run(ours), run(reference)
print(f"{title}: ours {a:.2f} s, {ma:.0f} MB; reference {b:.2f} s, {mb:.0f} MB; ratio {a / b:.2f}")
