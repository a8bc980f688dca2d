<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Cures\FinerStrands;
use Magpie\Core\Electrical\Cures\StrainRelief;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Stranding;
use Magpie\Core\Machine\Trade;

/** E19: conductors that move must be stranded. */
final class MovingLead implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E19',
            'Moving lead',
            'Is every lead that moves made for it?',
            Trade::Electrical,
            'IEC 60228: class 5 or 6 for flexing use; strain relief at both ends is common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->leads as $lead) {
            if ($lead->isFlexing()) {
                yield PowerLeads::subject($lead, $survey);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $lead = PowerLeads::named($inquiry);
        $stranding = $lead->conductor->stranding ?? $inquiry->lack("stranding of {$lead->ref}");
        $inquiry->remark("{$lead->ref} moves; its conductors are {$stranding->value}.");
        if ($stranding === Stranding::Solid) {
            return $inquiry->conclude(
                Verdict::Fails,
                'Solid conductors in a lead that moves: they break inside the sheath, where nobody sees it.',
            );
        }
        foreach ($lead->ends as $side => $end) {
            $at = $inquiry->build->roleOf($side === 0 ? $lead->from->need : $lead->to->need);
            if ($end->strainRelief === null) {
                $inquiry->missUntil(
                    Stage::Made,
                    "strain relief at {$at}",
                    "leads/{$lead->ref}/ends/{$side}/strain_relief",
                );
            } elseif ($end->strainRelief === false) {
                $inquiry->because("leads/{$lead->ref}/ends/{$side}/strain_relief");

                return $inquiry->conclude(
                    Verdict::Fails,
                    "It moves, and at {$at} nothing takes the pull off its joint.",
                );
            }
        }
        if ($stranding === Stranding::Stranded) {
            return $inquiry->conclude(
                Verdict::Tight,
                'Stranded, but not fine-stranded: it lasts where it moves seldom or in a wide bend.',
            );
        }

        return $inquiry->conclude(Verdict::Holds, 'Fine-stranded, and held at both ends.');
    }

    public function cures(): array
    {
        return [new StrainRelief, new FinerStrands];
    }

    public function examples(): Examples
    {
        $file = static fn (string $stranding): array => Examples::file(
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
                        'route' => 'flexing',
                        'conductor' => ['stranding' => $stranding],
                        'ends' => [['strain_relief' => true], ['strain_relief' => true]],
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('solid'), static fn (): array => $file('fine'), Verdict::Fails);
    }
}
