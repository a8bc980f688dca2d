<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Mate;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Part;
use Magpie\Core\Quantity\Quantity;

/** What choosing another part forces elsewhere, read from its sheet beside the present one's and from what it meets. */
final readonly class KnockOns
{
    public function __construct(private Build $build, private Need $need)
    {
    }

    /**
     * What stands in the way of choosing it at all: leads to ports it does not have.
     *
     * @return list<string>
     */
    public function blocking(Part $candidate): array
    {
        $blocking = [];
        foreach ($this->build->leads as $lead) {
            foreach ([$lead->from, $lead->to] as $end) {
                if ($end->need === $this->need->ref && ! isset($candidate->ports[$end->port])) {
                    $blocking[] = "{$lead->ref} goes to its port {$end->port}, which it does not have: give it that port, or move the lead.";
                }
            }
        }

        return $blocking;
    }

    /**
     * @return list<string>
     */
    public function of(Part $candidate): array
    {
        $now = $this->build->parts[$this->need->choice ?? ''] ?? null;
        if ($now === null || $now->ref === $candidate->ref) {
            return [];
        }
        $forces = [];
        foreach ($candidate->family->sheet() as $field) {
            [$was, $is] = [$now->spec($field->key), $candidate->spec($field->key)];
            if ($was === null || $is === null) {
                continue;
            }
            $forces[] = match ($field->key) {
                'frame' => $was->choice() === $is->choice()
                    ? null
                    : "Frame {$is->choice()} for {$was->choice()}: another bolt pattern and pilot".$this->on(' at '),
                'thread' => $was->choice() === $is->choice()
                    ? null
                    : "{$is->choice()} for {$was->choice()}: other holes, nuts and keys".$this->on(' at '),
                'shaft_diameter', 'bore', 'clamp_diameter', 'diameter' => $this->differs(
                    $was->nominal(),
                    $is->nominal(),
                    "{$field->label} %s for %s: what it meets must fit".$this->on(': '),
                ),
                'output_voltage', 'rated_voltage', 'coil_voltage' => $this->differs(
                    $was->nominal(),
                    $is->nominal(),
                    "{$field->label} %s for %s: another supply or converter".$this->leadsTo(' at '),
                ),
                'contact_rating' => null,
                'body_length' => $this->more(
                    $was->nominal(),
                    $is->nominal(),
                    $field->unit,
                    '%s longer: room behind it, screws and spacers'.$this->on(' at '),
                ),
                'thickness' => $this->differs(
                    $was->nominal(),
                    $is->nominal(),
                    "{$field->label} %s for %s: screws through it change length".$this->on(' at '),
                ),
                'block_length' => $this->more(
                    $was->nominal(),
                    $is->nominal(),
                    $field->unit,
                    '%s longer: so much travel is lost',
                ),
                'mass' => $this->more(
                    $was->nominal(),
                    $is->nominal(),
                    $field->unit,
                    '%s heavier, for whatever carries it',
                ),
                'continuous_current' => $this->more(
                    $is->nominal(),
                    $was->nominal(),
                    $field->unit,
                    '%s less for its motor',
                ),
                'rated_current' => $candidate->family->field('output_voltage') === null
                    ? $this->more($was->nominal(), $is->nominal(), $field->unit, '%s more to feed, and a driver for it')
                    : null,
                'drivers' => $this->more(
                    $is->nominal(),
                    $was->nominal(),
                    $field->unit,
                    '%s fewer drivers: a further module',
                ),
                default => null,
            };
        }

        return array_values(array_filter($forces));
    }

    private function differs(?Quantity $was, ?Quantity $is, string $says): ?string
    {
        return $was === null || $is === null || $was->compare($is) === 0 ? null : sprintf($says, $is, $was).'.';
    }

    private function more(?Quantity $was, ?Quantity $is, string $unit, string $says): ?string
    {
        return $was === null || $is === null || ! $is->exceeds($was)
            ? null
            : sprintf($says, $is->minus($was)->to($unit)).'.';
    }

    /** The needs it is joined to, after a word; nothing when it is joined to none. */
    private function on(string $word): string
    {
        $others = [];
        foreach (
            array_filter($this->build->mates, fn (Mate $m): bool => in_array($this->need->ref, $m->between, true)) as $mate
        ) {
            foreach ($mate->between as $side) {
                if ($side !== $this->need->ref) {
                    $others[] = $this->build->roleOf($side);
                }
            }
        }

        return $others === [] ? '' : $word.implode(', ', array_unique($others));
    }

    private function leadsTo(string $word): string
    {
        $others = [];
        foreach ($this->build->leads as $lead) {
            if ($lead->from->need === $this->need->ref) {
                $others[] = $this->build->roleOf($lead->to->need);
            } elseif ($lead->to->need === $this->need->ref) {
                $others[] = $this->build->roleOf($lead->from->need);
            }
        }
        $others = array_values(array_unique($others));

        return $others === []
            ? ''
            : $word.implode(', ', array_slice($others, 0, 3)).(count($others) > 3 ? ' and others' : '');
    }
}
