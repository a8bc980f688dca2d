<?php

declare(strict_types=1);

namespace App\Builds;

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
            'parts' => new Table('parts', [Column::text('family'), Column::text('name'), Column::text('notes')], [
                'specs' => Inner::map(Column::text('key'), self::specs('part_specs')),
                'ports' => Inner::objects(new Table('part_ports', [
                    Column::text('name'), Column::text('kind'), Column::flag('mains'), Column::text('draw'), Column::text('fed_from'),
                ], ['specs' => Inner::map(Column::text('key'), self::specs('port_specs'))])),
            ]),
            'needs' => new Table('needs', [
                Column::text('role'), Column::text('family'), Column::whole('quantity'), Column::link('choice_id', 'parts', 'choice'),
                Column::text('reason'), Column::text('spares'), Column::whole('owned'),
            ], ['candidates' => Inner::values(new Table('need_candidates', [Column::link('part_id', 'parts', '')]))]),
            'leads' => new Table('leads', [
                Column::text('size', 'conductor.size'), Column::text('evidence', 'conductor.evidence'), Column::text('stranding', 'conductor.stranding'),
                Column::text('insulation', 'conductor.insulation'), Column::whole('parallel', 'conductor.parallel'), Column::text('length'),
                Column::text('route'), Column::whole('bundled_with'), Column::link('protection_id', 'needs', 'protection'), Column::text('notes'),
            ], ['ends' => Inner::objects(new Table('lead_ends', [
                Column::text('termination'), Column::link('contact_id', 'parts', 'contact'), Column::whole('contacts_per_pole'),
                Column::flag('strain_relief'), Column::whole('conductors'),
            ]))], ['from', 'to']),
            'mates' => new Table('mates', [Column::text('kind'), Column::text('notes')], [
                'between' => Inner::values(new Table('mate_sides', [Column::link('need_id', 'needs', '')])),
                'screws' => Inner::objects(new Table('mate_screws', [
                    Column::link('screw_id', 'needs', 'screw'), Column::whole('count'), Column::text('into'), Column::text('material'),
                    Column::text('depth'), Column::text('room'), Column::text('evidence'),
                ], [
                    'clamped' => Inner::values(new Table('mate_screw_clamped', [Column::text('thickness', '')])),
                    'washers' => Inner::values(new Table('mate_screw_washers', [Column::text('thickness', '')])),
                ])),
            ]),
            'scenarios' => new Table('scenarios', [Column::text('name'), Column::text('duration'), Column::whole('runs_per_year')], [
                'loads' => Inner::map(Column::link('need_id', 'needs', ''), new Table('scenario_loads', [Column::text('share', '')])),
            ]),
            'suppliers' => new Table('suppliers', [
                Column::text('name'), Column::text('currency'), Column::text('tax'), Column::whole('lead_days'), Column::text('notes'),
            ], ['shipping' => Inner::objects(new Table('shipping_steps', [Column::decimal('from_value', 'from'), Column::decimal('cost')]))]),
            'offers' => new Table('offers', [
                Column::link('part_id', 'parts', 'part'), Column::link('supplier_id', 'suppliers', 'supplier'), Column::decimal('price'),
                Column::whole('pack'), Column::text('date'), Column::text('article'),
            ]),
            'rates' => new Table('rates', [Column::text('from'), Column::text('to'), Column::factor('worth'), Column::text('date')]),
            'purchases' => new Table('purchases', [
                Column::link('part_id', 'parts', 'part'), Column::link('supplier_id', 'suppliers', 'supplier'), Column::whole('pieces'),
                Column::decimal('paid'), Column::text('date'), Column::whole('received'), Column::text('notes'),
            ]),
            'steps' => new Table('steps', [
                Column::whole('position'), Column::text('section'), Column::text('title'), Column::text('notes'), Column::text('guide'),
                Column::text('check_what', 'check.what'), Column::text('check_nominal', 'check.nominal'),
                Column::text('check_tolerance', 'check.tolerance'), Column::text('check_measured', 'check.measured'), Column::text('state'),
            ], [
                'after' => Inner::values(new Table('step_prerequisites', [Column::link('before_id', 'steps', '')])),
                'tools' => Inner::values(new Table('step_tools', [Column::text('name', '')])),
                'cautions' => Inner::values(new Table('step_cautions', [Column::text('name', '')])),
                'uses' => Inner::map(Column::link('need_id', 'needs', ''), new Table('step_uses', [Column::whole('pieces', '')])),
                'timings' => Inner::objects(new Table('step_timings', [Column::whole('start'), Column::whole('stop')])),
            ]),
            'faults' => new Table('faults', [
                Column::text('what'), Column::text('severity'), Column::text('state'), Column::text('found'), Column::text('kind'),
                Column::link('need_id', 'needs', 'need'), Column::link('step_id', 'steps', 'step'), Column::text('cause'), Column::text('fix'),
                Column::decimal('cost'), Column::text('lost'),
            ], ['photos' => Inner::values(new Table('fault_photos', [Column::text('name', '')]))]),
            'limits' => new Table('limits', [Column::text('check'), Column::text('key'), Column::text('value'), Column::text('reason')]),
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
                Column::text('name'), Column::text('kind'), Column::text('currency'), Column::text('units'), Column::text('purpose'),
                Column::decimal('budget'), Column::text('contingency'), Column::text('weekly'), Column::text('pace'),
            ],
            'site' => [
                Column::text('mains_voltage'), Column::text('mains_frequency'), Column::text('outlet'), Column::text('ambient'),
                Column::flag('residual_current_device'), Column::decimal('tariff'), Column::text('site_notes', 'notes'),
            ],
        ];
    }

    private static function specs(string $table): Table
    {
        return new Table($table, [
            Column::text('value'), Column::flag('flag', 'value'), Column::text('evidence'), Column::text('source'),
            Column::text('tolerance'), Column::flag('confirmed'),
        ]);
    }
}
