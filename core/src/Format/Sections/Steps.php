<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Context;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Work\Act;
use Magpie\Core\Machine\Work\Cautions;
use Magpie\Core\Machine\Work\Guess;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepCheck;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Machine\Work\Timing;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/** @implements Linking<Step> */
final class Steps implements Linking
{
    /** What a bench reading may measure, tried in this order. */
    private const READINGS = [
        Dimension::Length,
        Dimension::Voltage,
        Dimension::Current,
        Dimension::Resistance,
        Dimension::Torque,
        Dimension::Temperature,
        Dimension::Mass,
        Dimension::Frequency,
        Dimension::Angle,
        Dimension::Force,
        Dimension::Time,
        Dimension::Power,
    ];

    public function key(): string
    {
        return 'steps';
    }

    public function read(Node $node, Context $context): Step
    {
        $uses = [];
        foreach ($node->members('uses') as $need => $member) {
            $count = $member->raw();
            if (! is_int($count) || $count < 1 || ($node->isNew() && $count > 1_000_000)) {
                $member->fail('must be a whole number of pieces, from 1 to 1000000.');
            }
            $uses[$need] = $count;
        }
        $timings = [];
        foreach ($node->items('timings') as $item) {
            $timing = new Timing(
                $item->optionalMoment('start') ?? 0,
                $item->optionalMoment('stop'),
                $item->optionalText('by', 60),
            );
            if ($timing->stop !== null && $timing->stop < $timing->start) {
                $item->fail('is before the start.', 'stop');
            }
            $item->close();
            $timings[] = $timing;
        }
        foreach ($node->texts('cautions') as $i => $caution) {
            if (! Cautions::has($caution)) {
                $node->fail("\"{$caution}\" is not a caution known here.", 'cautions');
            }
        }
        $step = new Step(
            $node->ref('ref'),
            $node->whole('position', 0),
            $node->text('section'),
            $node->text('title'),
            $node->refs('after'),
            $node->texts('tools'),
            $node->texts('cautions'),
            $uses,
            $node->optionalText('notes', 8000),
            $node->optionalWithin('guide', Dimension::Time, '0 h', '10000 h'),
            $node->has('check') ? $this->check($node->member('check')) : null,
            $node->optionalEnum('state', StepState::class) ?? StepState::Open,
            $timings,
            $node->optionalText('waived', 2000),
            $node->optionalText('derived', 160),
            $node->optionalEnum('act', Act::class),
            $node->optionalWithin('sets', Dimension::Time, '1 min', '1000 h'),
            $node->optionalFlag('optional') ?? false,
            array_map(self::guess(...), $node->items('guesses')),
            $node->optionalFlag('energises') ?? false,
            $node->optionalText('base', 16000),
            $node->texts('also'),
        );
        if (in_array($step->ref, $step->after, true)) {
            $node->fail('a step cannot wait for itself.', 'after');
        }
        $node->member('check');
        $node->close();

        return $step;
    }

    public function said(object $entry): string
    {
        return "step {$entry->title}";
    }

    public function links(object $entry): iterable
    {
        yield from Link::each('after', 'steps', $entry->after);
        foreach (array_keys($entry->uses) as $need) {
            yield new Link("uses/{$need}", 'needs', (string) $need);
        }
        foreach ($entry->guesses as $i => $guess) {
            yield from Link::to("guesses/{$i}/settled_by", 'steps', $guess->settledBy);
        }
    }

    public function write(object $entry): array
    {
        return array_filter(
            [
                'ref' => $entry->ref,
                'position' => $entry->position,
                'section' => $entry->section,
                'title' => $entry->title,
                'after' => $entry->after,
                'tools' => $entry->tools,
                'cautions' => $entry->cautions,
                'uses' => $entry->uses,
                'notes' => $entry->notes,
                'guide' => $entry->guide?->text(),
                'check' => $entry->check === null
                        ? null
                        : array_filter(
                            [
                                'what' => $entry->check->what,
                                'nominal' => $entry->check->nominal->text(),
                                'tolerance' => $entry->check->tolerance->text(),
                                'measured' => $entry->check->measured?->text(),
                            ],
                            static fn (?string $v): bool => $v !== null,
                        ),
                'state' => $entry->state->value,
                'timings' => array_map(
                    static fn (Timing $t): array => array_filter(
                        ['start' => $t->start, 'stop' => $t->stop, 'by' => $t->by],
                        static fn (mixed $v): bool => $v !== null,
                    ),
                    $entry->timings,
                ),
                'waived' => $entry->waived,
                'derived' => $entry->derived,
                'act' => $entry->act?->value,
                'sets' => $entry->sets?->text(),
                'optional' => $entry->optional ?: null,
                'guesses' => array_map(
                    static fn (Guess $g): array => array_filter(
                        ['what' => $g->what, 'settled_by' => $g->settledBy, 'settled' => $g->settled],
                        static fn (?string $v): bool => $v !== null,
                    ),
                    $entry->guesses,
                ),
                'energises' => $entry->energises ?: null,
                'base' => $entry->base,
                'also' => $entry->also,
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    private static function guess(Node $node): Guess
    {
        $guess = new Guess(
            $node->text('what', 500),
            $node->optionalRef('settled_by'),
            $node->optionalText('settled', 500),
        );
        $node->close();

        return $guess;
    }

    private function check(Node $node): StepCheck
    {
        $nominal = $this->reading($node->member('nominal'));
        $dimension = $nominal->unit->dimension;
        $check = new StepCheck(
            $node->text('what'),
            $nominal,
            $node->quantity(
                'tolerance',
                $dimension === Dimension::Temperature ? Dimension::TemperatureDifference : $dimension,
            ),
            $node->optionalQuantity('measured', $dimension, signed: true),
        );
        $node->close();

        return $check;
    }

    private function reading(Node $node): Quantity
    {
        $text = $node->raw();
        if (! is_string($text)) {
            $node->fail('must be a text with a unit, such as "0.05 mm".');
        }
        $reason = null;
        foreach (self::READINGS as $dimension) {
            try {
                return Quantity::parse($text, $dimension);
            } catch (CannotReadQuantity $e) {
                $reason ??= $e->getMessage();
            }
        }
        $node->fail((string) $reason);
    }
}
