<?php

declare(strict_types=1);

/*
 * Two sentences each: what it is, and how to find it out. Written from the checks and the handbook of this project;
 * where a figure is named it is common practice, no source. First the checks by their id, then the words of the trade.
 */
return [
    'checks' => [
        'E01' => [
            'A heater gives power by the square of its voltage: on half of it, a quarter is left.',
            'Read voltage and power off the heater, or measure its cold resistance with a multimeter.',
        ],
        'E02' => [
            'A plug or terminal that carries more than its contact is made for gets hot and chars.',
            'The rating of one contact is on the maker\'s sheet of the plug; count the contacts that share the current.',
        ],
        'E02-open' => [
            'Of contacts in parallel one may loosen; the others then carry all of the current.',
            'Divide the current by one contact less, and compare with the rating of one contact.',
        ],
        'E03' => [
            'A conductor that carries too much gets too hot for its insulation, sooner in a bundle and in warm air.',
            'The size is printed on the sheath; else measure one strand with callipers and count the strands.',
        ],
        'E04' => [
            'A long thin lead keeps some of the voltage for itself, and what arrives may be too little.',
            'Measure the length along the run; under load, measure the volts at both ends with a multimeter.',
        ],
        'E05' => [
            'A supply that is asked for more than its rating sags, switches off or fails early.',
            'Its rating is on its plate; what runs at once is in the scenarios on Power.',
        ],
        'E05-kit' => [
            'A bare supply leaves cover, earth, switch, fuse and cooling to you.',
            'Look at the supply: is every mains terminal covered, and is there a fan or a heat sink?',
        ],
        'E05-plug' => [
            'A supply with its own plug is closed and needs no wiring; one made for another mains burns, or does not run.',
            'Read "Input" on its label: it has to take in the mains voltage of the site.',
        ],
        'E06' => [
            'An input that gets more than it stands is destroyed; with less than it needs it does not work.',
            'Both ends are on the sheet of the part; capacitors at the input may be its weakest part.',
        ],
        'E07' => [
            'A board\'s output has a switch, a fuse and a terminal, and the weakest of them decides.',
            'The board\'s manual gives the current of each output, and of the input that feeds them all.',
        ],
        'E08' => [
            'A driver set too low gives torque away; set too high it overheats the motor or itself.',
            'The motor\'s rated current is on its label; what is set is read from the firmware, or measured at the driver.',
        ],
        'E09' => [
            'A motor loses torque with speed, sooner at low voltage and with much inductance.',
            'Inductance and current are on the motor\'s sheet; the voltage is that of its rail.',
        ],
        'E10' => [
            'A board can send only so many steps a second, and one step is the least an axis can move.',
            'Steps per millimetre follow from the motor\'s steps, the microsteps and the screw or pulley.',
        ],
        'E11' => [
            'An input that does not understand a signal reads nonsense; one fed a higher voltage is destroyed.',
            'The sheets of both ends give their levels; try it once with a meter before it is relied on.',
        ],
        'E12' => [
            'Everything that is switched or read needs a channel of the right kind on some board.',
            'Count what the board\'s manual lists, and what the firmware supports today.',
        ],
        'E12-fan' => [
            'A fan that keeps a hot end from clogging must run whenever it is hot, whatever the part fan does.',
            'Look which output it is plugged into, and how the firmware drives that output.',
        ],
        'E13' => [
            'A fuse must carry the load and open before the lead behind it burns, also on a short at the far end.',
            'The rating stands on the fuse, or on the breaker; the lead\'s size and length are on Leads.',
        ],
        'E14' => [
            'Where the mains come in there must be a fuse, a switch, residual-current protection and earth.',
            'Unplugged, measure from the earth pin to every bare metal part: well under an ohm. An electrician decides.',
        ],
        'E14-hands' => [
            'Mains wiring kills those who do not know it, and some places allow it to electricians only.',
            'Ask for your local code, and who of you has learnt it.',
        ],
        'E15' => [
            'An outlet feeds more than the machine: what else runs on its circuit counts too.',
            'The breaker behind the outlet has its rating on it; add up the plates of what else runs there.',
        ],
        'E16' => [
            'A solid-state relay for alternating current never lets go of direct current, and all of them get hot.',
            'AC or DC is printed beside the output terminals.',
        ],
        'E17' => [
            'A stop must take the power from all that moves, cuts or heats, and releasing it must start nothing.',
            'Press it and look what stays live; release it and see that all waits.',
        ],
        'E18' => [
            'A spindle drive and an arc throw noise that controls take for signals.',
            'Look for screened leads, an earthed metal box, and how the arc is started.',
        ],
        'E19' => [
            'A lead that moves breaks inside its insulation, where nobody sees it, unless it is made for moving.',
            'The maker says flexible, class 5 or 6; many fine strands are a good sign, a single one is none.',
        ],
        'E19-chain' => [
            'Leads need room to slide in their chain, and no tighter a bend than they stand.',
            'Add the outer diameters up; the chain\'s sheet gives opening and radius.',
        ],
        'E20' => [
            'Bare or tinned strands under a screw work loose and get hot.',
            'Look at the end: a ferrule, a fork, a ring or a crimp; then tug.',
        ],
        'E21' => [
            'A setting that does not fit its part overheats it, loses steps or trips for nothing.',
            'Read the settings back from the machine and enter them on Settings.',
        ],
        'E22' => [
            'A drive must give its spindle the current and the frequency it is wound for.',
            'Both are on the spindle\'s plate; poles too, or they follow from speed and frequency.',
        ],
        'E23' => [
            'What is lost as heat in a cabinet has to leave it, through its walls or by a fan.',
            'Measure the air inside after an hour at work, or let Heat add up the losses.',
        ],
        'E24' => [
            'Some supplies wait for a start line, and some cannot hold their voltage with little load.',
            'Both are in the supply\'s sheet, if they apply.',
        ],
        'E25' => ['What a run takes from the wall, and a year of it costs.', 'A plug-in power meter tells it for a real run.'],
        'E26' => [
            'A contact or fuse made for less voltage than it meets may never break the arc.',
            'Its rated voltage is printed on it, for AC and DC apart.',
        ],
        'E27' => [
            'A plug, terminal or splice carries what goes through it, and holds only the conductors it is made for.',
            'Its sheet gives amps a way and the sizes it takes.',
        ],
        'M01' => [
            'Blocks, stops and clearances eat into the travel that a screw or rail seems to give.',
            'Measure from stop to stop, with everything fitted.',
        ],
        'M03' => [
            'A motor has to push the load, friction and the cut, and speed everything up, itself included.',
            'Torque over speed is in the motor\'s curve; the mass can be weighed.',
        ],
        'M03-drop' => [
            'When power drops an upright axis may fall, on hands or on the work.',
            'With power off, push it down by hand: does it go?',
        ],
        'M04' => [
            'A load much heavier than the rotor makes an axis ring or lose steps.',
            'The rotor\'s inertia is in its sheet; that of the load follows from mass and screw.',
        ],
        'M05' => [
            'A long thin screw whips above a certain speed, and buckles under too much thrust.',
            'Measure its root diameter and the length between its bearings, and say how it is held.',
        ],
        'M05-preload' => [
            'Preload takes play out of a nut, and makes it harder to turn.',
            'Play by a dial indicator, pushed and pulled; drag by a spring scale on an arm.',
        ],
        'M16' => [
            'What an axis does not move when it turns back: backlash of the nut and play of the screw.',
            'Come up to a dial indicator from both sides to the same place: the difference is it.',
        ],
        'M19' => ['An axis turned by hand must be light enough, and stay where it is left.', 'Pull its wheel with a spring scale.'],
        'M06' => [
            'Belt and pulley of different pitch ride up; a pulley without a flat slips.',
            'Count teeth over a measured length.',
        ],
        'M07' => [
            'A block that carries too much wears out early, or dents when hit.',
            'Its static and dynamic rating are in the maker\'s table of its size.',
        ],
        'M17' => ['A torch without enough dry air burns its parts.', 'Flow at pressure is on both sheets; displacement is no flow.'],
        'M18' => ['Each sheet wants a feed; slower or faster the cut is bad.', 'The torch comes with its cut chart.'],
        'M08' => [
            'A cutter has a diameter its collet takes, a highest speed, and a bite per tooth.',
            'All three are on the cutter\'s packet, or with its maker.',
        ],
        'M08-flow' => [
            'A hot end melts only so much a second: that caps the speed, whatever the axes can do.',
            'Its sheet says cubic millimetres a second; or print faster and faster until the line thins.',
        ],
        'M09' => ['Shafts, bores, faces and holes have to meet.', 'Measure both with callipers, or read the drawing of each.'],
        'M09-grip' => [
            'A set screw on a round shaft slips where a clamp, a flat or a key would hold.',
            'Look at the end of the shaft and at the hub.',
        ],
        'M09-cutout' => ['A hole cut too large cannot be made smaller.', 'Have the part in hand and measure it before you cut.'],
        'M10' => [
            'Too short, a screw tears out; too long, it bottoms or hits something behind.',
            'Add up what it goes through, and measure the depth of the thread.',
        ],
        'M11' => ['Two things that move may meet where nobody looked.', 'Put in where each stands and how far it goes, on Place and Stack-up.'],
        'M11-box' => ['Parts need wall, and leads and hands need room between them.', 'Measure the inside of the box and each part.'],
        'M12' => ['A beam bends under the cut and under its own speeding up.', 'Section and span by callipers and tape; push it and read a dial indicator.'],
        'M13' => ['A plastic goes soft well below its melting point.', 'Tape a thermocouple to the place after an hour at work.'],
        'M13-recipe' => ['Walls, infill and the way it lies decide what a print holds.', 'They are in the slicer\'s settings it was printed with.'],
        'M13-print' => ['A material asks for a nozzle this hot and air around it this warm.', 'Both are on the reel.'],
        'M14' => ['Reels enough for all printed parts, and for those that fail.', 'The slicer gives the weight of each; weigh what is left on a reel.'],
        'M14-weight' => ['A print that weighs too little was printed thinner than its recipe.', 'Weigh it on a kitchen scale.'],
        'M14-batch' => ['One piece on the scales speaks for the whole print.', 'Weigh one of each print, and write it beside the print.'],
        'M15' => ['A sheet smaller than the travel, or a heater smaller than its sheet, leaves cold edges.', 'Measure them.'],
        'M15-surface' => ['Each surface holds some plastics too well and others not at all.', 'The maker of the sheet lists them.'],
        'M10-rust' => ['In a damp room bare steel rusts.', 'A hygrometer left for a week tells it.'],
        'T01' => ['A heater too weak for its plate never gets there.', 'Time it from cold; mass and power tell it before.'],
        'T02' => ['Too many watts on a square centimetre char the glue of a heater.', 'Power over its area; the glue\'s maker gives the limit.'],
        'T03' => [
            'When the control fails with the heater on, only a cut-off of its own stops it.',
            'Its temperature is printed on it; it must sit on the heater and break its current.',
        ],
        'T04' => ['What stands in warm air must bear it.', 'Measure the air there after an hour; the limit is on each sheet.'],
        'M02' => ['It has to go through the door, onto the bench, and leave room to work.', 'A tape; the outer sizes include what moves out.'],
        'M02-air' => ['Printing and cutting give off what nobody should breathe.', 'The material\'s safety sheet says what.'],
        'M02-ready' => ['What this kind of work needs within reach, before it starts.', 'Look for it, and say so on Brief.'],
        'S01' => ['A price on a page is not what it costs at the door.', 'Add shipping, duty and tax; Money does so by supplier.'],
        'S14' => ['Where two sources differ, one of them is wrong.', 'Measure it; a measured value counts most.'],
        'S15' => ['Pieces of different batches differ a little; side by side that shows.', 'The batch is on the label.'],
        'S07' => ['Small things are lost, stripped or blown.', 'Count what is in the drawer.'],
        'M11-place' => [
            'Everything that has a place, as boxes, against everything else over the whole travel.',
            'Give the size and the place of each part; say which are meant to touch.',
        ],
        'M11-reach' => [
            'A screw or plug that no tool reaches once its neighbour is in is a day lost.',
            'Say how much room a hand or key wants before it.',
        ],
        'M02-drawn' => [
            'What the machine takes with every axis at its ends, against the outline that was given.',
            'Measure the outline with the axes driven out.',
        ],
        'T04-near' => [
            'What lies against something hot gets as hot.',
            'A gap of a few millimetres, a shield, or another material.',
        ],
        'E19-length' => [
            'A chain too short tears its leads at the end of the travel.',
            'Half the travel, half a turn of its bend, and the brackets.',
        ],
        'E28' => ['A lead cut too short cannot be made longer.', 'Lay a string along the way before the first cut.'],
        'E18-duct' => [
            'Mains beside signals is picked up as counts that never were.',
            'Two channels, or a divider; crossing square does no harm.',
        ],
        'C01' => [
            'What an instrument showed, held against what the parts on the list would show.',
            'Measure at the plug, unpowered, with nothing else on the lead.',
        ],
    ],
    'terms' => [
        'Danger' => ['Something can burn, shock or hurt.', 'Do not power the machine until it is put right; the working says why.'],
        'Fails' => ['It will not do its work, or break.', 'The working names the limit and by how much it is passed.'],
        'Tight' => ['It does, with less to spare than is usual.', 'Know it and decide: accept it with a reason, or change it.'],
        'Unproven' => ['Nobody knows, because a value is missing or only assumed.', 'The working names the value, and how to get it.'],
        'Holds' => ['It does, on values somebody stands for.', 'The working shows each of them and what it rests on.'],
        'Later' => ['Only a machine that runs can tell it.', 'It is asked when the part is powered.'],
        'Accepted' => ['Somebody looked at it and says with a reason that it may stand.', 'Who and why is kept with it.'],
        'assumed' => ['Somebody\'s guess; no check passes on it where it matters.', 'Look it up, or measure it.'],
        'datasheet' => ['The maker says so in writing.', 'Keep the page it is from as its source.'],
        'manual' => ['The manual of the kit says so.', 'Name manual and page.'],
        'measured' => ['Somebody measured it on this part.', 'Say with what, and when.'],
        'AWG' => ['A gauge of wire: three numbers more are half of the copper.', 'It is printed on the sheath.'],
        'ampacity' => ['What a conductor carries without getting too hot, where and how it runs.', 'By its size, the air around it and what runs beside it.'],
        'backlash' => ['The part of a turn that moves nothing when an axis turns back.', 'Dial indicator, from both sides.'],
        'bend radius' => [
            'How tightly a lead or a chain may be bent.',
            'On its sheet; common practice for a lead that moves is ten times its diameter.',
        ],
        'chip load' => [
            'What each edge of a cutter takes at each turn.',
            'Feed divided by turns and edges; the maker of the cutter gives a range.',
        ],
        'closed loop' => [
            'A drive that measures where it is and corrects itself.',
            'It has an encoder lead beside the motor lead.',
        ],
        'contingency' => ['Money kept back for what nobody has thought of.', 'A share of the sum; 10 to 20 % is common practice.'],
        'contact rating' => ['What one contact of a plug carries for ever.', 'The sheet of the plug; never the sum of its contacts.'],
        'corner speed' => ['The speed above which a motor\'s torque falls.', 'From voltage, inductance and current; Motion prints it.'],
        'crimp' => [
            'A contact pressed onto the strands, for a plug.',
            'Tug at it; the tool made for it leaves an even mark.',
        ],
        'cut-off' => ['A switch or fuse that opens by heat alone, with no program.', 'Its temperature is printed on it.'],
        'deflection' => [
            'How far something bends under its load.',
            'A dial indicator beside it while the load is put on.',
        ],
        'duty cycle' => ['The part of the time it is on.', 'On a welder\'s or torch\'s plate, of ten minutes.'],
        'efficiency' => ['What comes out, of what goes in; the rest is heat.', 'On the sheet; or a meter on both sides.'],
        'evidence' => ['What a value rests on, from a guess to a measurement.', 'Choose it beside the value.'],
        'ferrule' => ['A sleeve crimped over strands so that a screw holds them.', 'Look at the end of the lead.'],
        'firmware' => ['The program in the controller board.', 'Its version is in the board\'s menu or console.'],
        'floating axis' => ['An axis that goes down by its weight when the motor lets go.', 'Push it with power off.'],
        'flow' => ['How much plastic or coolant passes in a second.', 'Weigh or measure what comes out in a minute.'],
        'frame size' => ['The square of a motor\'s flange, in tenths of an inch: 23 is about 57 mm.', 'Measure the flange.'],
        'fuse' => ['Opens when too much flows, for the sake of the lead behind it.', 'Its rating is stamped on it.'],
        'gland' => ['A nut that holds a cable where it goes through a wall.', 'By the cable\'s outer diameter.'],
        'hold point' => ['A step that must be measured before the work goes on.', 'Enter the reading at the step.'],
        'holding torque' => ['What a motor holds at rest with full current.', 'Its label or sheet; or a scale on an arm.'],
        'homing' => ['Driving to a switch to find out where an axis is.', 'It has a switch, or a stop it feels.'],
        'inductance' => ['What slows the rise of current in a winding.', 'Motor sheet, in mH; or an LCR meter.'],
        'inertia' => ['What makes a turning thing hard to start and stop.', 'From mass and radius, or the sheet.'],
        'inertia ratio' => [
            'What is turned, compared with the motor\'s own rotor.',
            'Worked out from masses and the way of the drive.',
        ],
        'inrush' => ['The gulp of current a supply takes when switched on.', 'On its sheet; a breaker may trip by it.'],
        'interlock' => ['A switch that lets nothing run while a door is open.', 'Open the door and look.'],
        'landed' => [
            'What something costs once it is on the bench: price, shipping, duty, fees.',
            'From the supplier\'s terms under Money.',
        ],
        'lead (of a screw)' => ['What its nut travels in one turn.', 'Turn it ten times and measure.'],
        'lead (a wire)' => ['A conductor with its two ends, from one port to another.', 'Each has a line on Leads.'],
        'lead time' => ['Days from the order to the door.', 'The supplier says so; keep what it really took.'],
        'limit switch' => ['Tells that an axis is at its end.', 'Press it and watch the board\'s input.'],
        'low voltage' => ['Below 50 V alternating or 120 V direct it seldom kills; it still burns.', 'On the supply\'s plate.'],
        'mains' => ['What comes out of the wall, and kills.', 'Unplug and prove dead before touching.'],
        'margin' => ['How far a value is from its limit, as a share of the limit.', 'The working shows both.'],
        'microsteps' => ['Parts of a motor\'s step that a driver makes.', 'Set in the firmware or by switches on the driver.'],
        'need' => ['A place in the machine that wants a part; which part is chosen apart.', 'Each is a line on Parts.'],
        'nominal' => ['What it is called, not what it measures.', 'Measure it where it matters.'],
        'opto-isolated' => ['Light carries the signal, so that a fault on one side spares the other.', 'On the sheet of the input.'],
        'phase' => ['One winding of a motor.', 'Its two ends have a few ohms between them and none to the others.'],
        'pilot arc' => ['A small arc inside a torch that lights the real one.', 'On the torch\'s sheet.'],
        'pitch' => ['From one tooth, thread or hole to the next.', 'Measure over ten of them.'],
        'port' => ['Where leads end at a part.', 'On the part\'s panel, with what it holds.'],
        'power factor' => ['The part of the current from the wall that does work.', 'On the plate; or a plug-in power meter.'],
        'preload' => ['A nut or bearing squeezed so that it has no play.', 'Play and drag tell how much.'],
        'pull-up' => ['A resistor that holds an input high while nothing pulls it low.', 'In the board\'s manual, or set in the firmware.'],
        'rail' => ['Supply, fuses and leads of one voltage; or what a block slides on.', 'By what it stands beside.'],
        'residual-current device' => ['Opens when current leaks to earth, before it kills.', 'Press its test button every month.'],
        'root diameter' => ['Of a screw, measured at the bottom of its thread.', 'Callipers with thin jaws.'],
        'run-out' => ['How far a turning part is off its axis.', 'A dial indicator on it, turned by hand.'],
        'scenario' => ['What is on at once, and how much.', 'Name it on Power.'],
        'shield' => ['A braid or foil about a lead, earthed, against noise.', 'Strip an end and look; earthed at one end.'],
        'slow' => ['A fuse that lets a start pass.', 'T on it; F is fast.'],
        'spare' => ['What is kept beyond what is fitted.', 'Set by part, or by kind.'],
        'stall' => ['A motor asked for more than it has stands still.', 'It hums, and the place is lost.'],
        'step loss' => ['A motor that missed steps stands elsewhere than the program thinks.', 'Home twice and compare.'],
        'step rate' => ['Steps a board must send in a second.', 'Speed times steps for one millimetre.'],
        'strain relief' => ['Holds a cable so that no pull reaches its contacts.', 'Tug at it.'],
        'strand' => ['One of the thin wires in a conductor.', 'Count them and measure one with callipers.'],
        'thermal runaway' => ['A heater that stays on because its sensor does not feel it.', 'Firmware protection, and a cut-off.'],
        'thermistor' => ['A resistor by which a board reads temperature.', 'Its type is in the manual; measure it cold.'],
        'thread engagement' => [
            'How deep a screw sits in its thread.',
            'Depth of the hole and length of the screw, less what is clamped.',
        ],
        'tolerance' => ['How far a value may be off.', 'On the sheet, or from several measurements.'],
        'torque' => ['Force times its arm, in newton metres.', 'Scale on an arm of known length.'],
        'travel' => ['How far an axis can go from end to end.', 'Measured between the stops, by hand, with power off.'],
        'voltage drop' => ['What a lead keeps of the voltage.', 'A multimeter at both ends, under load.'],
        'whip' => ['What a long thin screw does when turned too fast.', 'Speed it up slowly and listen.'],
        'working' => ['How a verdict came about, line by line.', 'Open it by pressing the finding.'],
    ],
];
