<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\AxisDrive;
use Magpie\Core\Machine\AxisTaker;
use Magpie\Core\Machine\BodyMaterial;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Homing;
use Magpie\Core\Machine\HomingBy;
use Magpie\Core\Machine\ScrewSupport;
use Magpie\Core\Machine\TurningBody;
use Magpie\Core\Quantity\Dimension;

/** @implements Linking<Axis> */
final class Axes implements Linking
{
    private const MEASURES = [
        'ratio' => 'ratio',
        'top_speed' => 'topSpeed',
        'acceleration' => 'acceleration',
        'mass' => 'mass',
        'force' => 'force',
        'friction' => 'friction',
        'efficiency' => 'efficiency',
        'incline' => 'incline',
        'inertia' => 'inertia',
        'unsupported' => 'unsupported',
        'lever' => 'lever',
        'spread' => 'spread',
        'measured_load' => 'measuredLoad',
        'end_play' => 'endPlay',
        'turning_torque' => 'turningTorque',
        'shock' => 'shock',
        'hand_wheel' => 'handWheel',
    ];

    public function key(): string
    {
        return 'axes';
    }

    public function read(Node $node, Context $context): Axis
    {
        $takes = [];
        foreach ($node->items('takes') as $item) {
            $takes[] = new AxisTaker(
                $item->text('what'),
                $item->quantity('length', Dimension::Length),
                $item->optionalEnum('evidence', Evidence::class),
            );
            $item->close();
        }
        $axis = new Axis(
            $node->ref('ref'),
            $node->text('name'),
            $node->enum('along', Along::class),
            $node->optionalRef('rail'),
            $node->optionalLength('span'),
            $node->optionalEnum('span_evidence', Evidence::class),
            $node->whole('blocks', 1, 1, 16),
            $node->optionalLength('block_pitch'),
            $takes,
            $node->optionalLength('advertised'),
            $this->drive($node->part('drive')),
            $this->homing($node->part('homing')),
            $node->optionalRef('guides'),
        );
        $node->close();

        return $axis;
    }

    public function said(object $entry): string
    {
        return "axis {$entry->name}";
    }

    public function links(object $entry): iterable
    {
        $drive = $entry->drive;
        yield from Link::to('rail', 'needs', $entry->rail, ['linear_rail'], 'rail');
        yield from Link::to('guides', 'needs', $entry->guides, ['bearing'], 'bearing');
        yield from Link::to('drive/by', 'needs', $drive->by, ['drive_screw', 'pulley']);
        yield from Link::to('drive/board', 'needs', $drive->board, ['controller_board']);
        yield from Link::to('drive/beam', 'needs', $drive->beam, ['extrusion']);
        yield from Link::each('drive/motors', 'needs', $drive->motors, ['stepper_motor', 'servo_motor']);
        yield from Link::each('drive/carries', 'needs', $drive->carries);
        yield from Link::each('homing/sensors', 'needs', $entry->homing->sensors, ['limit_switch', 'sensor', 'probe']);
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'name' => $entry->name,
                'along' => $entry->along->value,
                'rail' => $entry->rail,
                'guides' => $entry->guides,
                'span' => $entry->span?->text(),
                'span_evidence' => $entry->spanEvidence?->value,
                'blocks' => $entry->blocks,
                'block_pitch' => $entry->blockPitch?->text(),
                'takes' => array_map(
                    static fn (AxisTaker $t): array => array_filter(
                        [
                            'what' => $t->what,
                            'length' => $t->length->text(),
                            'evidence' => $t->evidence?->value,
                        ],
                        static fn (?string $v): bool => $v !== null,
                    ),
                    $entry->takes,
                ),
                'advertised' => $entry->advertised?->text(),
                'drive' => array_filter(
                    [
                        'motors' => $entry->drive->motors,
                        'by' => $entry->drive->by,
                        ...array_map(
                            static fn (string $field): ?string => $entry->drive->{$field}?->text(),
                            self::MEASURES,
                        ),
                        'board' => $entry->drive->board,
                        'closed_loop' => $entry->drive->closedLoop,
                        'support' => $entry->drive->support?->value,
                        'evidence' => $entry->drive->evidence?->value,
                        'beam' => $entry->drive->beam,
                        'carries' => $entry->drive->carries,
                        'turning' => array_map($this->writeBody(...), $entry->drive->turning),
                    ],
                    static fn (mixed $v): bool => $v !== null && $v !== [],
                ),
                'homing' => array_filter(
                    [
                        'by' => $entry->homing->by?->value,
                        'sensors' => $entry->homing->sensors,
                        'both_ends' => $entry->homing->bothEnds,
                        'configured' => $entry->homing->configured?->text(),
                    ],
                    static fn (mixed $v): bool => $v !== null && $v !== [],
                ),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    private function drive(Node $node): AxisDrive
    {
        $drive = new AxisDrive(
            $node->refs('motors'),
            $node->optionalRef('by'),
            $node->optionalWithin('ratio', Dimension::Ratio, '0.001', '1000'),
            $node->optionalQuantity('top_speed', Dimension::Speed),
            $node->optionalQuantity('acceleration', Dimension::Acceleration),
            $node->optionalQuantity('mass', Dimension::Mass),
            $node->optionalQuantity('force', Dimension::Force),
            $node->optionalQuantity('friction', Dimension::Force),
            $node->optionalWithin('efficiency', Dimension::Ratio, '1 %', '100 %'),
            $node->optionalQuantity('incline', Dimension::Angle),
            $node->optionalQuantity('inertia', Dimension::Inertia),
            $node->optionalRef('board'),
            $node->optionalFlag('closed_loop'),
            $node->optionalEnum('support', ScrewSupport::class),
            $node->optionalLength('unsupported'),
            $node->optionalQuantity('lever', Dimension::Length),
            $node->optionalLength('spread'),
            $node->optionalEnum('evidence', Evidence::class),
            $node->optionalRef('beam'),
            $node->optionalWithin('measured_load', Dimension::Ratio, '0 %', '1000 %'),
            $node->refs('carries'),
            array_map($this->body(...), $node->items('turning')),
            $node->optionalQuantity('end_play', Dimension::Length),
            $node->optionalQuantity('turning_torque', Dimension::Torque),
            $node->optionalWithin('shock', Dimension::Ratio, '1', '5'),
            $node->optionalLength('hand_wheel'),
        );
        foreach (array_keys(self::MEASURES) as $key) {
            $value = $drive->{self::MEASURES[$key]};
            $zero = in_array(
                $key,
                ['force', 'friction', 'inertia', 'lever', 'incline', 'end_play', 'turning_torque'],
                true,
            );
            if ($value !== null && ! $value->isPositive() && ! ($zero && $value->isZero())) {
                $node->fail($zero ? 'cannot be negative.' : 'must be more than nought.', $key);
            }
        }
        $node->close();

        return $drive;
    }

    private function body(Node $node): TurningBody
    {
        $body = new TurningBody(
            $node->text('name'),
            $node->quantity('outer', Dimension::Length),
            $node->optionalLength('bore'),
            $node->quantity('length', Dimension::Length),
            $node->enum('material', BodyMaterial::class),
            $node->optionalWithin('ratio', Dimension::Ratio, '0.001', '1000'),
        );
        if ($body->bore !== null && ! $body->outer->exceeds($body->bore)) {
            $node->fail('is as wide as the body is.', 'bore');
        }
        $node->close();

        return $body;
    }

    /**
     * @return array<string, string>
     */
    private function writeBody(TurningBody $body): array
    {
        return array_filter(
            [
                'name' => $body->name,
                'outer' => $body->outer->text(),
                'bore' => $body->bore?->text(),
                'length' => $body->length->text(),
                'material' => $body->material->value,
                'ratio' => $body->ratio?->text(),
            ],
            static fn (?string $v): bool => $v !== null,
        );
    }

    private function homing(Node $node): Homing
    {
        $homing = new Homing(
            $node->optionalEnum('by', HomingBy::class),
            $node->refs('sensors'),
            $node->optionalFlag('both_ends'),
            $node->optionalLength('configured'),
        );
        $node->close();

        return $homing;
    }
}
