<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Cures\EarthLeads;
use Magpie\Core\Electrical\PowerLeads;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E14: everything a mains entry must have before it is live. */
final class MainsEntry implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E14',
            'Mains entry',
            'Has the mains entry its fuse, switch, residual-current protection and earth to everything that can be touched?',
            Trade::Electrical,
            'IEC 60204-1 §5.3, §6.3 and §8.2 (from memory): protective conductor as large as the line up to 16 mm²; local code and a licensed electrician decide; bond by §18.2 (from memory)',
            ['bond' => new Threshold('resistance from the pin to the metal', Quantity::of(0.1, 'Ω'))],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::TakesMains) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $inlet = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $without = [];
        $fuse = $inquiry->tryRead($inlet, 'fuse_rating', 'I_f');
        $lines = array_filter(
            $inquiry->build->leads,
            static fn (Lead $l): bool => $l->from->need === $inlet->need->ref && $l->from->port === 'out',
        );
        $unfused = array_filter($lines, static fn (Lead $l): bool => $l->protection === null);
        if ($fuse === null && ($lines === [] || $unfused !== [])) {
            $inquiry->miss(
                'a fuse in the inlet, or one in each lead from it',
                "parts/{$inlet->part->ref}/specs/fuse_rating",
            );
        }
        match ($inquiry->tryFlag($inlet, 'switch')) {
            null => $inquiry->miss('whether the inlet has a switch', "parts/{$inlet->part->ref}/specs/switch"),
            false => ($without[] = 'no switch'),
            true => $inquiry->remark('The inlet has a switch.'),
        };
        match ($inquiry->build->site->residualCurrentDevice) {
            null => $inquiry->miss(
                'whether the outlet has residual-current protection',
                'site/residual_current_device',
            ),
            false => ($without[] = 'no residual-current protection'),
            true => $inquiry->remark('The outlet has residual-current protection.'),
        };
        $lineTo = [];
        foreach ($lines as $lead) {
            $lineTo[$lead->to->need] ??= $lead;
        }
        foreach ($this->touchable($inquiry) as $fitted) {
            $earth = $this->earthOf($survey, $fitted);
            if ($earth === null) {
                $without[] = "no earth to {$fitted->need->role}";

                continue;
            }
            $this->bond($inquiry, $earth, $fitted, $without);
            $thin = $this->thin($inquiry, $earth, $lineTo[$fitted->need->ref] ?? null, $fitted->need->role);
            if ($thin !== null) {
                $without[] = $thin;
            }
        }
        foreach ($this->bedsBehind($survey, $inlet) as $bed) {
            array_push($without, ...$this->bed($inquiry, $survey, $bed));
        }
        if ($without !== []) {
            return $inquiry->conclude(
                Verdict::Danger,
                ucfirst(implode('; ', $without)).
                    '. Not to be powered so. Local code and a licensed electrician decide.',
            );
        }

        return $inquiry->conclude(
            Verdict::Holds,
            'Fused, switched, protected and earthed. Local code and a licensed electrician decide.',
            null,
            'bond at most 0.1 Ω',
        );
    }

    /**
     * The resistance read from the plug's pin to the metal: without a reading no bond is known.
     *
     * @param  list<string>  $without  what is wrong is added
     */
    private function bond(Inquiry $inquiry, Lead $earth, Fitted $fitted, array &$without): void
    {
        if ($earth->bond === null) {
            $inquiry->missUntil(
                Stage::Made,
                "bond of {$fitted->need->role}, read along {$earth->ref} with power off",
                "leads/{$earth->ref}/bond",
            );

            return;
        }
        $bond = $inquiry->given(
            "bond of {$fitted->need->role}",
            'R',
            $earth->bond,
            Evidence::Measured,
            "leads/{$earth->ref}/bond",
        );
        if ($bond->exceeds($inquiry->threshold('bond'))) {
            $without[] = "a bond of {$bond} to {$fitted->need->role}, where {$inquiry->threshold('bond')} is the most";
        }
    }

    /**
     * @return iterable<Fitted> heaters that are fed with the mains of this inlet
     */
    private function bedsBehind(Survey $survey, Fitted $inlet): iterable
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($survey->build->fittedThat(Ability::Heats) as $ref => $heater) {
            $node = $topology->node("{$ref}.power");
            $source = $node === null ? null : $topology->sourceOf($node);
            if (
                $source !== null &&
                $topology->shapes[$source]->mains &&
                $topology->needs[$source] === $inlet->need->ref
            ) {
                yield $heater;
            }
        }
    }

    /**
     * @return list<string> what a heater on the mains lacks
     */
    private function bed(Inquiry $inquiry, Survey $survey, Fitted $bed): array
    {
        $without = [];
        $where = "parts/{$bed->part->ref}/specs";
        match ($inquiry->tryFlag($bed, 'earthed')) {
            null => $inquiry->miss("whether the plate of {$bed->need->role} is earthed", "{$where}/earthed"),
            false => ($without[] = "no earth to the plate of {$bed->need->role}"),
            true => $inquiry->remark("The plate of {$bed->need->role} is earthed."),
        };
        if ($inquiry->tryRead($bed, 'thermal_fuse', 'T_f') === null) {
            $inquiry->miss("thermal fuse of {$bed->need->role}", "{$where}/thermal_fuse");
        }
        $topology = Circuits::of($survey)->topology;
        $node = $topology->node("{$bed->need->ref}.power");
        foreach ($node === null ? [] : $topology->wayBack($node) as $joint) {
            if ($joint->lead === null && $topology->at($joint->b)[0]->part->can(Ability::Switches)) {
                return $without;
            }
        }

        return [...$without, "no switching device on the line to {$bed->need->role}"];
    }

    public function cures(): array
    {
        return [new EarthLeads];
    }

    public function examples(): Examples
    {
        $file = static fn (array $earth): array => Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', [
                    'fuse_rating' => '6.3 A',
                    'switch' => true,
                    'rated_current' => '10 A',
                ]),
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']),
            ],
            [
                'site' => ['mains_voltage' => '230 V', 'residual_current_device' => true],
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'inlet.out',
                        'to' => 'psu.mains',
                        'conductor' => ['size' => '0.75 mm²', 'evidence' => 'datasheet'],
                    ],
                    ...$earth,
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file([]),
            static fn (): array => $file([
                [
                    'ref' => 'W2',
                    'from' => 'inlet.earth',
                    'to' => 'psu.earth',
                    'conductor' => ['size' => '0.75 mm²', 'evidence' => 'datasheet'],
                    'bond' => '0.04 Ω',
                ],
            ]),
        );
    }

    /** An earth that is thinner than the line beside it; null where it is not, as far as both are known. */
    private function thin(Inquiry $inquiry, Lead $earth, ?Lead $line, string $role): ?string
    {
        $sizes = [];
        foreach (array_filter([$earth, $line]) as $lead) {
            $lead->conductor->size === null
                ? $inquiry->miss("conductor size of {$lead->ref}", "leads/{$lead->ref}/conductor/size")
                : ($sizes[] = PowerLeads::size($inquiry, $lead));
        }
        if (count($sizes) < 2 || ! $sizes[0]->isBelow($sizes[1])) {
            return null;
        }
        $inquiry->work(
            "Earth of {$role} against its line",
            'k = A_PE / A_L',
            ['A_PE' => $sizes[0], 'A_L' => $sizes[1]],
            $sizes[0]->over($sizes[1]),
            '%',
        );

        return "an earth of {$sizes[0]} beside a line of {$sizes[1]} to {$role}";
    }

    /**
     * @return iterable<Fitted> what has an earth terminal and is within reach of the mains
     */
    private function touchable(Inquiry $inquiry): iterable
    {
        foreach ($inquiry->build->allFitted() as $fitted) {
            $mains = array_filter(
                $fitted->part->ports,
                static fn ($p): bool => $p->mains && $p->kind === PortKind::Inlet,
            );
            if (isset($fitted->part->ports['earth']) && ! $fitted->part->can(Ability::TakesMains) && $mains !== []) {
                yield $fitted;
            }
        }
    }

    private function earthOf(Survey $survey, Fitted $fitted): ?Lead
    {
        $topology = Circuits::of($survey)->topology;
        $earth = "{$fitted->need->ref}.earth";

        return $topology->leadsFrom($earth)[0] ?? ($topology->leadsTo($earth)[0] ?? null);
    }
}
