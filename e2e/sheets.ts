// Pages as makers and shops have them, invented, that are pasted where a thing is put in.

export const unitPage = `Aldine Two
Digital air unit

Parameter | Value
Input voltage | 7 - 26.8 V (absolute limit 36 V)
Power consumption | 8.1 W typ., 12.2 W max.
ceramics across the input: 20 µF
Frequency | 5.725 - 5.850 GHz
Output power | 10/25/190/520/980 mW
Antennas: 2
Antenna connector | U.FL
hole patterns:
- across: 25.5 mm; along: 25.5 mm; screw: M2; depth of the thread: 3.2 mm
- across: 20 mm; along: 20 mm; screw: M2; depth of the thread: 3.2 mm
reached on the side:
- of: usb; value: rear
- of: bind; value: left
- of: card; value: rear
height: 12.8 mm
Weight | 31 g
Camera width | 19 mm
camera screws a side: 1
camera's screws to the lens's front: 9 mm
Camera cable | 128 mm
Connector | SH 1.0 mm, 6 pin
Pinout: GND, VCC, TX, RX, GND, SBUS
understands: common
shows a canvas on firmware: *
OSD canvas: 53 x 20
No activation needed.
RC output speaks: sbus
RC output inverted: yes
its RC protocols: normal, fast
releases:
- version: 2.0
- version: 2.3; can go back to: 2.0
`;

export const gogglesPage = `Visor B
Input: 6.9-21.5 V, 7.5 W
Weight 292 g
No activation needed.
Frequency: 5.725 to 5.850 GHz
Four antennas, SMA
weakest signal they take: -94 dBm
plug lies behind the lip by: 0 mm
show a canvas on firmware: *
releases:
- version: 4.4
- version: 4.6; can go back to: 4.4
`;

export const gripPage = `Grip 2
Sends on 2.4 GHz. No activation needed.
releases:
- version: 1.0
- version: 1.1; can go back to: 1.0
`;

export const antennaPage = `Two pigtail
Linear, 5.8 GHz, gain 2 dBi
U.FL, lead 65 mm
Weight 1.2 g
`;
