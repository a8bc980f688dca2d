<?php

declare(strict_types=1);

namespace App\Builds;

use Magpie\Core\Machine\Choosing\OwnWork;
use Magpie\Core\Machine\Craft;
use Magpie\Core\Machine\Site;

/**
 * Where each part of a build file lives in the database. The one place that knows both.
 */
final class Schema
{
    /**
     * @return array<string, Table> by section of the build file, what others point at first
     */
    public static function sections(): array
    {
        static $sections = null;

        return $sections ??= [
            'parts' => new Table(
                'parts',
                [Column::text('family'), Column::text('name'), Column::text('notes'), Column::text('library')],
                [
                    'specs' => Inner::map(Column::text('key'), self::specs('part_specs')),
                    'ports' => Inner::objects(
                        new Table(
                            'part_ports',
                            [
                                Column::text('name'),
                                Column::text('kind'),
                                Column::flag('mains'),
                                Column::text('draw'),
                                Column::text('fed_from'),
                            ],
                            ['specs' => Inner::map(Column::text('key'), self::specs('port_specs'))],
                        ),
                    ),
                ],
            ),
            'needs' => new Table(
                'needs',
                [
                    Column::text('role'),
                    Column::text('family'),
                    Column::whole('quantity'),
                    Column::link('choice_id', 'parts', 'choice'),
                    Column::text('reason'),
                    Column::text('spares'),
                    Column::whole('owned'),
                    Column::text('purpose'),
                    Column::text('scale_along', 'scale.along'),
                    Column::text('scale_as', 'scale.as'),
                    Column::text('scale_every', 'scale.every'),
                    Column::whole('scale_plus', 'scale.plus'),
                    Column::text('scale_longer', 'scale.longer'),
                    Column::text('sits_in'),
                    Column::text('opening'),
                    Column::text('stage'),
                    Column::decimal('worth'),
                ],
                [
                    'candidates' => Inner::values(new Table('need_candidates', [Column::link('part_id', 'parts', '')])),
                    'pieces' => Inner::objects(new Table('need_pieces', [Column::text('name'), Column::text('batch')])),
                    'weights' => Inner::map(
                        Column::text('key'),
                        new Table('need_weights', [Column::whole('weight', '')]),
                    ),
                ],
            ),
            'leads' => new Table(
                'leads',
                [
                    Column::text('size', 'conductor.size'),
                    Column::text('evidence', 'conductor.evidence'),
                    Column::text('stranding', 'conductor.stranding'),
                    Column::text('insulation', 'conductor.insulation'),
                    Column::whole('parallel', 'conductor.parallel'),
                    Column::text('screen', 'conductor.screen'),
                    Column::text('length'),
                    Column::text('route'),
                    Column::whole('bundled_with'),
                    Column::link('protection_id', 'needs', 'protection'),
                    Column::text('notes'),
                    Column::flag('made'),
                    Column::link('chain_id', 'needs', 'chain'),
                    Column::text('diameter'),
                    Column::text('bond'),
                ],
                [
                    'ends' => Inner::objects(
                        new Table('lead_ends', [
                            Column::text('termination'),
                            Column::link('contact_id', 'parts', 'contact'),
                            Column::whole('contacts_per_pole'),
                            Column::flag('strain_relief'),
                            Column::whole('conductors'),
                            Column::flag('made'),
                            Column::text('pulled'),
                        ]),
                    ),
                ],
                ['from', 'to'],
            ),
            'mates' => new Table(
                'mates',
                [Column::text('kind'), Column::text('notes')],
                [
                    'between' => Inner::values(new Table('mate_sides', [Column::link('need_id', 'needs', '')])),
                    'screws' => Inner::objects(
                        new Table(
                            'mate_screws',
                            [
                                Column::link('screw_id', 'needs', 'screw'),
                                Column::whole('count'),
                                Column::text('into'),
                                Column::text('material'),
                                Column::text('depth'),
                                Column::text('room'),
                                Column::text('evidence'),
                            ],
                            [
                                'clamped' => Inner::values(
                                    new Table('mate_screw_clamped', [Column::text('thickness', '')]),
                                ),
                                'washers' => Inner::values(
                                    new Table('mate_screw_washers', [Column::text('thickness', '')]),
                                ),
                            ],
                        ),
                    ),
                ],
            ),
            'scenarios' => new Table(
                'scenarios',
                [
                    Column::text('name'),
                    Column::text('duration'),
                    Column::whole('runs_per_year'),
                    Column::text('measured'),
                ],
                [
                    'loads' => Inner::map(
                        Column::link('need_id', 'needs', ''),
                        new Table('scenario_loads', [Column::text('share', '')]),
                    ),
                ],
            ),
            'suppliers' => new Table(
                'suppliers',
                [
                    Column::text('name'),
                    Column::text('currency'),
                    Column::text('tax'),
                    Column::whole('lead_days'),
                    Column::text('notes'),
                    Column::text('duty'),
                    Column::decimal('duty_free'),
                    Column::decimal('tax_free'),
                    Column::text('fee'),
                    Column::decimal('least_order'),
                    Column::flag('avoid'),
                ],
                [
                    'shipping' => Inner::objects(
                        new Table('shipping_steps', [Column::decimal('from_value', 'from'), Column::decimal('cost')]),
                    ),
                ],
            ),
            'offers' => new Table(
                'offers',
                [
                    Column::link('part_id', 'parts', 'part'),
                    Column::link('supplier_id', 'suppliers', 'supplier'),
                    Column::decimal('price'),
                    Column::whole('pack'),
                    Column::text('date'),
                    Column::text('article'),
                    Column::whole('least'),
                    Column::whole('stock'),
                    Column::whole('lead_days'),
                    Column::flag('pinned'),
                ],
                [
                    'breaks' => Inner::objects(
                        new Table('offer_breaks', [Column::whole('from'), Column::decimal('price')]),
                    ),
                    'past' => Inner::objects(new Table('offer_past', [Column::text('date'), Column::decimal('price')])),
                ],
            ),
            'rates' => new Table('rates', [
                Column::text('from'),
                Column::text('to'),
                Column::factor('worth'),
                Column::text('date'),
            ]),
            'purchases' => new Table(
                'purchases',
                [
                    Column::link('part_id', 'parts', 'part'),
                    Column::link('supplier_id', 'suppliers', 'supplier'),
                    Column::whole('pieces'),
                    Column::decimal('paid'),
                    Column::text('date'),
                    Column::whole('received'),
                    Column::text('notes'),
                    Column::text('state'),
                    Column::decimal('agreed'),
                    Column::text('order'),
                    Column::text('due'),
                    Column::text('article'),
                    Column::whole('accepted'),
                    Column::whole('returned'),
                    Column::text('lot'),
                    Column::text('claim_by'),
                    Column::text('claim'),
                    Column::factor('rate'),
                    Column::whole('moved'),
                    Column::whole('sold'),
                    Column::decimal('fetched'),
                ],
                [
                    'looks' => Inner::objects(
                        new Table(
                            'purchase_looks',
                            [
                                Column::text('what'),
                                Column::text('result'),
                                Column::text('date'),
                                Column::whole('pieces'),
                                Column::text('notes'),
                            ],
                            [
                                'photos' => Inner::values(
                                    new Table('purchase_look_photos', [Column::text('name', '')]),
                                ),
                            ],
                        ),
                    ),
                ],
            ),
            'steps' => new Table(
                'steps',
                [
                    Column::whole('position'),
                    Column::text('section'),
                    Column::text('title'),
                    Column::text('notes'),
                    Column::text('guide'),
                    Column::text('check_what', 'check.what'),
                    Column::text('check_nominal', 'check.nominal'),
                    Column::text('check_tolerance', 'check.tolerance'),
                    Column::text('check_measured', 'check.measured'),
                    Column::text('state'),
                    Column::text('waived'),
                    Column::text('derived'),
                    Column::text('act'),
                    Column::text('sets'),
                    Column::flag('optional'),
                    Column::flag('energises'),
                    Column::text('base'),
                ],
                [
                    'after' => Inner::values(new Table('step_prerequisites', [Column::link('before_id', 'steps', '')])),
                    'tools' => Inner::values(new Table('step_tools', [Column::text('name', '')])),
                    'cautions' => Inner::values(new Table('step_cautions', [Column::text('name', '')])),
                    'uses' => Inner::map(
                        Column::link('need_id', 'needs', ''),
                        new Table('step_uses', [Column::whole('pieces', '')]),
                    ),
                    'also' => Inner::values(new Table('step_also', [Column::text('key', '')])),
                    'timings' => Inner::objects(
                        new Table('step_timings', [Column::whole('start'), Column::whole('stop'), Column::text('by')]),
                    ),
                    'guesses' => Inner::objects(
                        new Table('step_guesses', [
                            Column::text('what'),
                            Column::link('settled_by_id', 'steps', 'settled_by'),
                            Column::text('settled'),
                        ]),
                    ),
                ],
            ),
            'faults' => new Table(
                'faults',
                [
                    Column::text('what'),
                    Column::text('severity'),
                    Column::text('state'),
                    Column::text('found'),
                    Column::text('kind'),
                    Column::link('need_id', 'needs', 'need'),
                    Column::link('step_id', 'steps', 'step'),
                    Column::text('cause'),
                    Column::text('fix'),
                    Column::decimal('cost'),
                    Column::text('lost'),
                    Column::link('lead_id', 'leads', 'lead'),
                    Column::text('by'),
                    Column::text('tried'),
                    Column::text('hand'),
                    Column::whole('days'),
                    Column::text('lot'),
                    Column::text('practice'),
                    Column::text('caught'),
                ],
                [
                    'photos' => Inner::values(new Table('fault_photos', [Column::text('name', '')])),
                    'marks' => Inner::objects(
                        new Table('fault_marks', [Column::text('photo'), Column::whole('x'), Column::whole('y')]),
                    ),
                    'rework' => Inner::values(new Table('fault_rework', [Column::link('step_id', 'steps', '')])),
                ],
            ),
            'limits' => new Table('limits', [
                Column::text('check'),
                Column::text('key'),
                Column::text('value'),
                Column::text('reason'),
            ]),
            'workpieces' => new Table('workpieces', [
                Column::text('name'),
                Column::text('length'),
                Column::text('width'),
                Column::text('height'),
                Column::text('material'),
                Column::whole('per_week'),
                Column::text('volume'),
            ]),
            'axes' => new Table(
                'axes',
                [
                    Column::text('name'),
                    Column::text('along'),
                    Column::link('rail_id', 'needs', 'rail'),
                    Column::link('guides_id', 'needs', 'guides'),
                    Column::text('span'),
                    Column::text('span_evidence'),
                    Column::whole('blocks'),
                    Column::text('block_pitch'),
                    Column::text('advertised'),
                    Column::link('drive_by_id', 'needs', 'drive.by'),
                    Column::link('drive_board_id', 'needs', 'drive.board'),
                    Column::link('drive_beam_id', 'needs', 'drive.beam'),
                    Column::flag('drive_closed_loop', 'drive.closed_loop'),
                    ...self::under('drive', [
                        'ratio',
                        'top_speed',
                        'acceleration',
                        'mass',
                        'force',
                        'friction',
                        'efficiency',
                        'incline',
                        'inertia',
                        'support',
                        'unsupported',
                        'lever',
                        'spread',
                        'evidence',
                        'measured_load',
                        'end_play',
                        'turning_torque',
                        'shock',
                        'hand_wheel',
                    ]),
                    Column::text('homing_by', 'homing.by'),
                    Column::flag('homing_both_ends', 'homing.both_ends'),
                    Column::text('homing_configured', 'homing.configured'),
                ],
                [
                    'takes' => Inner::objects(
                        new Table('axis_takers', [
                            Column::text('what'),
                            Column::text('length'),
                            Column::text('evidence'),
                        ]),
                    ),
                    'drive.motors' => Inner::values(new Table('axis_motors', [Column::link('need_id', 'needs', '')])),
                    'drive.carries' => Inner::values(new Table('axis_carries', [Column::link('need_id', 'needs', '')])),
                    'drive.turning' => Inner::objects(
                        new Table('axis_turning', [
                            Column::text('name'),
                            Column::text('outer'),
                            Column::text('bore'),
                            Column::text('length'),
                            Column::text('material'),
                            Column::text('ratio'),
                        ]),
                    ),
                    'homing.sensors' => Inner::values(
                        new Table('axis_sensors', [Column::link('need_id', 'needs', '')]),
                    ),
                ],
            ),
            'routes' => new Table(
                'routes',
                [
                    Column::text('name'),
                    Column::text('kind'),
                    Column::flag('whole_build'),
                    ...array_map(
                        static fn (string $work): Column => Column::text("hours_{$work}", "hours.{$work}"),
                        OwnWork::words(),
                    ),
                    Column::text('filament'),
                    Column::whole('wait_days'),
                    Column::text('documentation'),
                    Column::text('support'),
                    Column::text('freedom'),
                    Column::decimal('resale'),
                    Column::text('notes'),
                ],
                [
                    'needs' => Inner::values(new Table('route_needs', [Column::link('need_id', 'needs', '')])),
                    'in_box' => Inner::values(new Table('route_contents', [Column::text('what', '')])),
                    'lines' => Inner::objects(
                        new Table('route_lines', [
                            Column::text('what'),
                            Column::text('kind'),
                            Column::whole('pieces'),
                            Column::decimal('price'),
                            Column::link('supplier_id', 'suppliers', 'supplier'),
                            Column::whole('pack'),
                            Column::whole('owned'),
                            Column::text('evidence'),
                        ]),
                    ),
                ],
            ),
            'decisions' => new Table(
                'decisions',
                [
                    Column::text('question'),
                    Column::text('about'),
                    Column::text('state'),
                    Column::link('need_id', 'needs', 'need'),
                    Column::text('school'),
                    Column::text('choice'),
                    Column::text('reason'),
                    Column::text('who'),
                    Column::text('date'),
                ],
                [
                    'rejected' => Inner::objects(
                        new Table('decision_rejections', [Column::text('what'), Column::text('why')]),
                    ),
                    'opinions' => Inner::objects(
                        new Table('decision_opinions', [
                            Column::text('about'),
                            Column::text('says'),
                            Column::text('interest'),
                            Column::text('who'),
                            Column::text('date'),
                            Column::whole('reports'),
                        ]),
                    ),
                    'facts' => Inner::map(
                        Column::text('name'),
                        new Table('decision_facts', [Column::text('fact', '')]),
                    ),
                ],
            ),
            'revisions' => new Table('revisions', [
                Column::text('of'),
                Column::text('name'),
                Column::text('revision'),
                Column::text('date'),
                Column::link('part_id', 'parts', 'part'),
                Column::text('state'),
                Column::text('effect'),
                Column::flag('governs'),
            ]),
            'zones' => new Table(
                'zones',
                [
                    Column::text('name'),
                    Column::text('kind'),
                    Column::link('box_id', 'needs', 'box'),
                    Column::text('temperature'),
                    Column::text('evidence'),
                ],
                ['holds' => Inner::values(new Table('zone_contents', [Column::link('need_id', 'needs', '')]))],
            ),
            'clearances' => new Table(
                'clearances',
                [Column::text('name'), Column::text('least'), Column::text('evidence'), Column::flag('preference')],
                [
                    'between' => Inner::objects(
                        new Table(
                            'clearance_sides',
                            [
                                Column::text('what'),
                                Column::text('x'),
                                Column::text('y'),
                                Column::text('z'),
                                Column::text('round'),
                            ],
                            [
                                'moves' => Inner::values(
                                    new Table('clearance_moves', [Column::link('axis_id', 'axes', '')]),
                                ),
                            ],
                        ),
                    ),
                ],
            ),
            'settings' => new Table('settings', [
                Column::text('kind'),
                Column::text('about'),
                Column::text('value'),
                Column::text('until'),
                Column::flag('done'),
                Column::text('notes'),
                Column::text('planned'),
                Column::text('made'),
            ]),
            'accepted' => new Table('accepted', [
                Column::text('finding'),
                Column::text('why'),
                Column::text('who'),
                Column::text('of'),
                Column::text('until'),
            ]),
            'printers' => new Table(
                'printers',
                [
                    Column::text('name'),
                    Column::text('length'),
                    Column::text('width'),
                    Column::text('height'),
                    Column::text('flow'),
                    Column::text('daily'),
                    Column::flag('finished'),
                    Column::text('notes'),
                ],
                ['plastics' => Inner::values(new Table('printer_plastics', [Column::text('name', '')]))],
            ),
            'prints' => new Table('prints', [
                Column::link('part_id', 'parts', 'part'),
                Column::link('printer_id', 'printers', 'printer'),
                Column::text('date'),
                Column::whole('good'),
                Column::whole('failed'),
                Column::text('mass'),
                Column::text('time'),
                Column::flag('fit'),
                Column::text('notes'),
            ]),
            'documents' => new Table(
                'documents',
                [
                    Column::text('title'),
                    Column::text('kind'),
                    Column::text('version'),
                    Column::text('date'),
                    Column::text('read'),
                    Column::text('notes'),
                ],
                [
                    'over' => Inner::values(new Table('document_over', [Column::link('other_id', 'documents', '')])),
                    'covers' => Inner::objects(
                        new Table('document_passages', [
                            Column::link('step_id', 'steps', 'step'),
                            Column::text('pages'),
                            Column::flag('superseded'),
                        ]),
                    ),
                    'says' => Inner::objects(
                        new Table('document_statements', [
                            Column::text('what'),
                            Column::text('says'),
                            Column::link('need_id', 'needs', 'need'),
                            Column::link('step_id', 'steps', 'step'),
                        ]),
                    ),
                    'corrections' => Inner::objects(
                        new Table('document_corrections', [
                            Column::text('says'),
                            Column::text('right'),
                            Column::text('why'),
                            Column::link('step_id', 'steps', 'step'),
                            Column::text('sent'),
                        ]),
                    ),
                ],
            ),
            'bags' => new Table(
                'bags',
                [Column::text('label'), Column::text('notes')],
                [
                    'holds' => Inner::objects(
                        new Table('bag_lines', [
                            Column::link('need_id', 'needs', 'need'),
                            Column::whole('expected'),
                            Column::whole('found'),
                            Column::whole('left'),
                            Column::link('instead_of_id', 'needs', 'instead_of'),
                        ]),
                    ),
                    'for' => Inner::values(new Table('bag_steps', [Column::link('step_id', 'steps', '')])),
                ],
            ),
            'questions' => new Table('questions', [
                Column::text('asks'),
                Column::text('of'),
                Column::text('asked'),
                Column::text('answer'),
                Column::text('answered'),
                Column::link('need_id', 'needs', 'need'),
                Column::link('step_id', 'steps', 'step'),
                Column::link('fault_id', 'faults', 'fault'),
            ]),
            'readings' => new Table('readings', [
                Column::text('what'),
                Column::text('value'),
                Column::link('need_id', 'needs', 'need'),
                Column::link('axis_id', 'axes', 'axis'),
                Column::text('port'),
                Column::text('scenario'),
                Column::text('part'),
                Column::text('accuracy'),
                Column::text('instrument'),
                Column::text('by'),
                Column::whole('at'),
                Column::text('photo'),
                Column::text('note'),
                Column::flag('simulated'),
                Column::text('struck'),
            ]),
            'rungs' => new Table(
                'rungs',
                [Column::text('override'), Column::text('by'), Column::whole('at'), Column::text('note')],
                [
                    'ticks' => Inner::values(new Table('rung_ticks', [Column::text('key', '')])),
                    'over' => Inner::values(new Table('rung_over', [Column::text('says', '')])),
                ],
            ),
            'attempts' => new Table('power_attempts', [
                Column::whole('at'),
                Column::text('breaker'),
                Column::text('stops'),
                Column::flag('started'),
                Column::text('rung'),
                Column::text('lamps'),
                Column::text('by'),
                Column::text('note'),
            ]),
            'alignments' => new Table(
                'alignments',
                [
                    Column::text('kind'),
                    Column::link('axis_id', 'axes', 'axis'),
                    Column::text('instrument'),
                    Column::text('holder'),
                    Column::text('by'),
                    Column::whole('at'),
                    Column::text('note'),
                ],
                [
                    'given' => Inner::map(
                        Column::text('key'),
                        new Table('alignment_given', [Column::text('value', '')]),
                    ),
                ],
            ),
            'jobs' => new Table(
                'machine_jobs',
                [
                    Column::text('name'),
                    Column::whole('at'),
                    Column::text('time'),
                    Column::text('spindle'),
                    Column::text('heat'),
                    Column::text('material'),
                    Column::text('note'),
                ],
                ['axes' => Inner::values(new Table('machine_job_axes', [Column::link('axis_id', 'axes', '')]))],
            ),
            'rounds' => new Table('upkeep_rounds', [
                Column::text('task'),
                Column::whole('at'),
                Column::text('found'),
                Column::flag('trouble'),
                Column::text('by'),
            ]),
            'tests' => new Table(
                'test_pieces',
                [
                    Column::text('piece'),
                    Column::whole('at'),
                    Column::text('recipe'),
                    Column::text('material'),
                    Column::text('changed'),
                    Column::text('by'),
                ],
                [
                    'features' => Inner::objects(
                        new Table('test_features', [
                            Column::text('name'),
                            Column::text('nominal'),
                            Column::text('tolerance'),
                            Column::text('measured'),
                        ]),
                    ),
                ],
            ),
            // A place names others of its collection by their refs, since they may come in any order.
            'places' => new Table(
                'places',
                [
                    Column::link('need_id', 'needs', 'need'),
                    Column::link('zone_id', 'zones', 'zone'),
                    Column::link('workpiece_id', 'workpieces', 'workpiece'),
                    Column::text('name'),
                    Column::whole('piece'),
                    Column::text('on'),
                    ...self::under('x', ['at', 'of', 'by']),
                    ...self::under('y', ['at', 'of', 'by']),
                    ...self::under('z', ['at', 'of', 'by']),
                    Column::text('turned'),
                    ...self::under('size', ['length', 'width', 'height']),
                    Column::text('row'),
                    Column::text('pitch'),
                    Column::text('free'),
                    Column::text('duct'),
                    Column::flag('preference'),
                    Column::text('evidence'),
                ],
                [
                    'moves' => Inner::values(new Table('place_moves', [Column::link('axis_id', 'axes', '')])),
                    'spans' => Inner::values(new Table('place_spans', [Column::link('axis_id', 'axes', '')])),
                    'meets' => Inner::values(new Table('place_meets', [Column::link('other_id', 'places', '')])),
                    'reach' => Inner::objects(
                        new Table('place_reach', [Column::text('side'), Column::text('depth'), Column::text('for')]),
                    ),
                ],
            ),
        ];
    }

    /**
     * The single objects of the file, which live on the build's own row.
     *
     * @return array<string, list<Column>>
     */
    public static function headers(): array
    {
        return [
            'build' => [
                Column::text('name'),
                Column::text('kind'),
                Column::text('currency'),
                Column::text('units'),
                Column::text('purpose'),
                Column::decimal('budget'),
                Column::text('contingency'),
                Column::text('weekly'),
                Column::text('pace'),
                Column::text('stage'),
            ],
            'site' => [
                Column::text('mains_voltage'),
                Column::text('mains_frequency'),
                Column::text('outlet'),
                Column::text('ambient'),
                Column::flag('residual_current_device'),
                Column::decimal('tariff'),
                Column::text('site_notes', 'notes'),
                Column::text('country'),
                Column::text('other_load'),
                ...self::under('door', ['width', 'height']),
                ...self::under('bench', ['length', 'width', 'load']),
                ...self::under('room', ['length', 'width', 'height']),
                Column::text('service'),
                Column::text('humidity'),
                Column::text('noise'),
                Column::text('ventilation'),
                ...array_map(
                    static fn (string $name): Column => Column::flag("ready_{$name}", "ready.{$name}"),
                    array_keys(Site::PRECAUTIONS),
                ),
            ],
            'brief' => [
                ...array_map(static fn (string $name): Column => Column::text("brief_{$name}", $name), [
                    'process',
                    'wish',
                    'accuracy',
                    'margin',
                    'flow',
                    'duty',
                    'weekly',
                    'spindle_power',
                    'helper',
                    'wanted_by',
                    'notes',
                    'cut_direction',
                ]),
                Column::decimal('brief_hour', 'hour'),
                ...self::under('size', ['x', 'y', 'z']),
                ...self::under('kit_size', ['x', 'y', 'z']),
                ...self::under('outline', ['length', 'width', 'height', 'mass', 'evidence']),
                ...self::under('experience', Craft::words()),
            ],
        ];
    }

    /**
     * @param  list<string>  $names
     * @return list<Column> for the members of one object within a header
     */
    private static function under(string $object, array $names): array
    {
        return array_map(
            static fn (string $name): Column => Column::text("{$object}_{$name}", "{$object}.{$name}"),
            $names,
        );
    }

    private static function specs(string $table): Table
    {
        $claim = [
            Column::text('value'),
            Column::flag('flag', 'value'),
            Column::text('evidence'),
            Column::text('source'),
            Column::text('tolerance'),
            Column::flag('confirmed'),
        ];

        return new Table($table, $claim, ['rivals' => Inner::objects(new Table("{$table}_rivals", $claim))]);
    }
}
