<?php

declare(strict_types=1);

namespace Magpie\Core\Scope\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Piece;
use Magpie\Core\Machine\Trade;

/** S15: pieces that work side by side, and the batches they came out of. */
final class Batches implements Check
{
    public function card(): Card
    {
        return new Card(
            'S15',
            'Batches',
            'Did pieces that work side by side come out of one batch?',
            Trade::Workshop,
            'Two batches of rails, motors or filament are not quite alike: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->allFitted() as $ref => $fitted) {
            $told = array_filter($fitted->need->pieces, static fn (Piece $p): bool => $p->batch !== null);
            if ($fitted->part->family->matched() && $told !== []) {
                yield new Subject('need', (string) $ref, $fitted->need->role, [(string) $ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $need = $inquiry->build->need($inquiry->subject->ref) ?? $inquiry->lack('this need');
        $batches = [];
        foreach ($need->pieces as $piece) {
            if ($piece->batch !== null) {
                $batches[$piece->batch][] = $piece->name;
            }
        }
        $told = array_sum(array_map(count(...), $batches));
        if ($told < $need->quantity) {
            $inquiry->miss(
                'the batch of '.($need->quantity - $told)." more of {$need->role}",
                "needs/{$need->ref}/pieces",
            );
        }
        foreach ($batches as $batch => $names) {
            $inquiry->remark('Batch '.$batch.': '.implode(', ', $names).'.');
        }

        return count($batches) > 1
            ? $inquiry->conclude(
                Verdict::Tight,
                "{$need->role} came out of ".
                    count($batches).
                    ' batches: '.
                    implode(' and ', array_map(strval(...), array_keys($batches))).
                    '. Compare them before they are built in; swap so that a pair is of one.',
            )
            : $inquiry->conclude(Verdict::Holds, "All told of {$need->role} are of one batch.");
    }

    public function examples(): Examples
    {
        $file = static function (string $second): array {
            $rails = Examples::part('rails', 'linear_rail', []);
            $rails[1] += [
                'quantity' => 2,
                'pieces' => [['name' => 'left', 'batch' => 'A'], ['name' => 'right', 'batch' => $second]],
            ];

            return Examples::file([$rails]);
        };

        return new Examples(static fn (): array => $file('B'), static fn (): array => $file('A'), Verdict::Tight);
    }
}
