<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Cures;

use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;

/** Another screw for this joint alone. */
final readonly class OtherScrew implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return ['screw'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $subject = $finding->subject->ref;
        [$mate, $index] = explode('/', $subject) + [1 => '0'];
        $held = $at->build->mates[$mate] ?? null;
        $stack = $held?->screws[(int) $index] ?? null;
        $now = $stack?->screw === null ? null : $at->build->fitted($stack->screw);
        if ($held === null || $stack === null || $now === null) {
            return;
        }
        $thread = $now->part->spec('thread')?->choice();
        $need = Adopting::free("s-{$mate}", $at->build->needs);
        foreach ($at->build->fittedThat(Ability::Screws) as $ref => $other) {
            if ($ref !== $stack->screw && $other->part->spec('thread')?->choice() === $thread) {
                yield Remedy::setting(
                    "{$other->part->name} from {$other->need->role} for this joint",
                    'mates',
                    $mate,
                    ['screws', (int) $index, 'screw'],
                    $ref,
                    true,
                );
            }
        }
        foreach ($at->shelf('screw') as $entry) {
            if (
                $entry->part->spec('thread')?->choice() === $thread &&
                $entry->part->spec('head')?->choice() === ($now->part->spec('head')?->choice() ?? 'cap')
            ) {
                yield new Remedy(
                    "{$entry->part->name} for this joint",
                    [
                        ...Adopting::need($at->build, $entry, $need, "Screws of {$mate}", [
                            'quantity' => $stack->count,
                            'spares' => '15 %',
                        ]),
                        Remedy::set('mates', $mate, ['screws', (int) $index, 'screw'], $need),
                    ],
                    true,
                );
            }
        }
    }
}
