<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Cures\Ferrules;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Termination;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;

/** E20: what the conductors of a power lead end in. */
final class Terminations implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E20',
            'Terminations',
            'Do the conductors end in something that holds under a screw?',
            Trade::Electrical,
            'Ferrule, crimped fork or ring under screws: common practice, no source; pull test UL 486A (from memory)',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        return PowerLeads::subjects($survey);
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $lead = PowerLeads::named($inquiry);
        $weak = $weaker = [];
        $pull = Conductors::pull($lead->conductor->size?->text() ?? '');
        foreach ($lead->ends as $side => $end) {
            $at = $inquiry->build->roleOf($side === 0 ? $lead->from->need : $lead->to->need);
            if ($end->termination === null) {
                $inquiry->missUntil(
                    Stage::Made,
                    "what {$lead->ref} ends in at {$at}",
                    "leads/{$lead->ref}/ends/{$side}/termination",
                );
            } elseif (in_array($end->termination, [Termination::Bare, Termination::Tinned], true)) {
                $weak[] = "{$end->termination->value} strands at {$at}";
            } else {
                $inquiry->remark("At {$at}: {$end->termination->value}.");
            }
            if ($end->pulled !== null) {
                $stood = $inquiry->given(
                    "pull at {$at}",
                    'F',
                    $end->pulled,
                    Evidence::Measured,
                    "leads/{$lead->ref}/ends/{$side}/pulled",
                );
                if ($pull !== null && $stood->isBelow(Quantity::of($pull, 'N'))) {
                    $weaker[] = "at {$at} it came off at {$stood}";
                }
            }
        }
        if ($pull !== null) {
            $inquiry->remark("A crimp on {$lead->conductor->size?->text()} must stand {$pull} N.");
        }

        if ($weaker !== []) {
            return $inquiry->conclude(
                Verdict::Fails,
                ucfirst(implode(', ', $weaker)).": it must stand {$pull} N. Make it again.",
            );
        }

        return $weak === []
            ? $inquiry->conclude(
                Verdict::Holds,
                'Ends that hold under a screw.'.($pull === null ? '' : " Pull test {$pull} N."),
            )
            : $inquiry->conclude(
                Verdict::Tight,
                ucfirst(implode(', ', $weak)).': they creep under the screw and loosen. Crimp a ferrule.',
            );
    }

    public function cures(): array
    {
        return [new Ferrules];
    }

    public function examples(): Examples
    {
        $file = static fn (string $end): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('fan', 'fan', ['rated_current' => '0.1 A']),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'fan.power',
                        'route' => 'fixed',
                        'conductor' => ['size' => '18 AWG', 'evidence' => 'datasheet'],
                        'ends' => [['termination' => $end], ['termination' => 'crimp']],
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('tinned'),
            static fn (): array => $file('ferrule'),
            Verdict::Tight,
        );
    }
}
