"""The unit that a result is shown in: what a textbook of the field would print.

Common practice of the trade; the examples are made up.
"""

import pytest

from tests.engine.answers import outcome

ROWS = """
sqrt(10 mH/(100 nF)) => 316.227766 Ω
sqrt(100 W*4 Ω) => 20 V
1/(2 Ω) => 0.5 S
f = 50 Hz | C = 2.2 µF | 1/(2 pi f C) => 1446.863119 Ω
f = 50 Hz | 2 pi f => 314.1592654 s^-1
U = 12 V | R = 4.7 kΩ | U/R => 2.553191489 mA
230 V * 5 A => 1150 W
70 Ah/(5 A) => 14 h
5 kWh/(250 W) => 20 h
R = 100 Ω | C = 1 µF | R C => 100 µs
B = 1.2 T | A = 6 cm^2 | B A => 720 µWb
1/(20 ms) => 50 s^-1
3e8 m/s/(589 nm) => 5.093378608e14 s^-1
60 mph/(3 s) => 8.9408 m/s^2
72 km / 1.5 h => 48 km/h
72 km/h * 30 min => 36 km
100 km/h * 2 s => 55.55555556 m
5 m/(2 s*3 s) => 0.8333333333 m/s^2
F = 3 kN | m = 1500 kg | F/m => 2 m/s^2
5 kg * 9.81 m/s^2 => 49.05 N
F = 200 N | r = 0.3 m | M = F r => 60 N m
W = 200 N * 3 m => 600 J
w = 5 kN/m | L = 4 m | M = w L^2/8 => 10 kN m
m = 1250 kg | v = 25 m/s | 1/2 m v^2 => 390625 J
E = 210 GPa | E * 0.0012 => 0.252 GPa
12 kN / 58 mm^2 => 206.8965517 MPa
5 N / 20 mm^2 => 250000 Pa
1500 W * 2 h => 3 kWh
2 g/(3 s cm) => 0.06666666667 Pa s
Q = 18 m^3/h | A = 2000 mm^2 | Q/A => 2.5 m/s
1 m^3 * 1 kg/(2 h * 3 L) => 166.6666667 kg/h
ρ = 7.85 g/cm^3 | V = 20 cm^3 | ρ V => 157 g
500 mL * 1.2 g/mL => 600 g
2 mol * 0.8 kg/mol => 1.6 kg
50 mol * 44.01 g/mol => 2.2005 kg
0.1 mol / 250 mL => 0.4 mol/L
0.1 mol/L * 25 mL => 2.5 mmol
n = 2 mol | T = 300 K | p = 1013 hPa | n*8.314 J/(mol K)*T/p => 0.04924383021 m^3
m = 2 kg | v = 3 m/s | m v => 6 kg m/s
5 cm * 2 m => 0.1 m^2
10 mW/(2 J) => 0.005 s^-1
0.2 Ω * 2 mm^2/(3 m) => 1.333333333e-7 Ω m
5.972e24 kg => 5.972e24 kg
constant("Avogadro constant") => 6.02214076e23 mol^-1
0.08 L atm/(mol K)*300 K*1 mol/(2 L) => 12 atm
2 A*1800 s/(96500 C/mol)*65 g/mol => 2.424870466 g
500 nm*2 m/(0.1 mm) => 0.01 m
96485 C/mol*1.1 V => 106133.5 J/mol
2 pi*0.5 m*3 Hz => 9.424777961 m/s
25 kN/m^3*0.2 m*0.3 m => 1.5 kN/m
3 kN*2 mm => 6 N m
3 kN*2 m => 6 kN m
w = 5 kN/m | L = 4 m | w*L^2/8 => 10 kN m
1/2*200 N/m*(0.1 m)^2 => 1 J
80 kg*9.81 m/s^2*15 m => 11772 J
100 lm/(2 m^2) => 50 lx
3300 mAh*3.7 V => 12.21 Wh
12 V/(5 kΩ) => 2.4 mA
h = 6.626e-34 J s | h * 5e14 s^-1 => 3.313e-19 J
"""


@pytest.mark.parametrize("row", ROWS.strip().splitlines())
def test_the_unit_of_an_answer(row):
    typed, _, shown = row.rpartition(" => ")
    found = outcome(*typed.split(" | "))
    assert found.answers[-1].text == shown
