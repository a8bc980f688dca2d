<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Reads;
use Magpie\Core\Quantity\Quantity;

/**
 * What several leads carry at once: through one fuse, or through one plug. Every lead of the set asks for the same sum,
 * so it is worked out once and kept.
 *
 * @phpstan-type Sum array{scenario: string, current: Quantity, terms: array<string, Quantity>,
 *     inputs: array<string, Input>, weak: list<Input>, shares: list<array{Quantity, list<Input>}>, missing: list<string>}
 */
final class LeadsTogether implements Carried
{
    /** Inputs beyond which only those that rest on too little are noted where it is only asked whether a sum matters. */
    private const MANY = 100;

    /**
     * @param  array<string, array{Sum|null, array<string, true>}>  $known  sum of each set, and the cells it was made from
     */
    private function __construct(private readonly Survey $survey, private array $known = [])
    {
    }

    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $s): self => new self($s));
    }

    /** Sums that follow from nothing that has changed are as they were. */
    public function carriedTo(Survey $survey, array $changed, bool $stands): CarriedOver
    {
        $standing = static fn (array $known): bool => ! Reads::meet($known[1], $changed);

        return new CarriedOver(new self($survey, array_filter($this->known, $standing)), []);
    }

    /**
     * Their sum in the scenario in which it is largest; loads that are not known are named as missing.
     *
     * @param  non-empty-list<string>  $leads  refs, side by side: none of them behind another
     * @param  string  $where  what all of it goes through
     *
     * @throws \Magpie\Core\Inspection\InputMissing when it cannot be told
     */
    public static function current(Inquiry $inquiry, Survey $survey, array $leads, string $where): Quantity
    {
        $sum = self::of($survey)->sum($leads) ?? $inquiry->lack("what goes through {$where}");
        $inquiry->in($sum['scenario']);
        $inquiry->absorb($sum['inputs']);
        foreach ($sum['missing'] as $missing) {
            $inquiry->miss($missing);
        }

        return $inquiry->work(
            "All that goes through {$where} in \"{$sum['scenario']}\"",
            'I = '.implode(' + ', array_keys($sum['terms'])),
            $sum['terms'],
            $inquiry->leaning($sum['current'], static fn (): array => $sum['shares']),
            'A',
        );
    }

    /**
     * The same where it is only asked whether it matters, without a line of working. Null when it cannot be told.
     *
     * @param  non-empty-list<string>  $leads  refs, side by side
     */
    public static function atMost(Inquiry $inquiry, Survey $survey, array $leads): ?Quantity
    {
        $sum = self::of($survey)->sum($leads);
        if ($sum === null) {
            return null;
        }
        foreach ($sum['missing'] as $missing) {
            $inquiry->miss($missing);
        }
        // Of very many, each noted by each of them, those that keep it from passing do.
        $inquiry->absorb(count($sum['inputs']) > self::MANY ? $sum['weak'] : $sum['inputs']);

        return $sum['weak'] === []
            ? $sum['current']
            : $inquiry->leaning($sum['current'], static fn (): array => $sum['shares']);
    }

    /**
     * @param  non-empty-list<string>  $leads
     * @return Sum|null null when nothing of it is known
     */
    private function sum(array $leads): ?array
    {
        $key = implode(' ', $leads);
        $reads = $this->survey->reads;
        if ($reads === null) {
            $this->known[$key] ??= [$this->worked($leads), []];
        } else {
            $this->known[$key] ??= $reads->during(fn (): ?array => $this->worked($leads));
            $reads->noteAll($this->known[$key][1]);
        }

        return $this->known[$key][0];
    }

    /** Weaker than what a check asks that asks no more than most. */
    private static function isWeak(Input $input): bool
    {
        return $input->evidence->isWeakerThan(Evidence::Manual);
    }

    /**
     * @param  non-empty-list<string>  $leads
     * @return Sum|null
     */
    private function worked(array $leads): ?array
    {
        $worst = $most = null;
        $missing = [];
        foreach (Circuits::of($this->survey)->flows() as $flow) {
            $sum = null;
            foreach ($leads as $ref) {
                $current = $flow->current($ref);
                $sum = $current === null ? $sum : $sum?->plus($current) ?? $current;
                foreach ($flow->behind($ref) as $demand) {
                    $missing += array_fill_keys($demand->missing, true);
                }
            }
            if ($sum !== null && ($most === null || $sum->exceeds($most))) {
                [$worst, $most] = [$flow, $sum];
            }
        }
        if ($worst === null || $most === null) {
            return null;
        }
        $terms = $inputs = $shares = [];
        foreach ($leads as $ref) {
            array_push($shares, ...PowerLeads::shares($worst, $worst->behind($ref)));
            foreach ($worst->behind($ref) as $demand) {
                foreach ($demand->inputs as $input) {
                    $inputs[$input->where] ??= $input;
                }
            }
            $current = $worst->current($ref);
            if ($current === null) {
                $missing["the current of {$ref}"] = true;
            } else {
                $terms["I_{$ref}"] = $current;
            }
        }

        return [
            'scenario' => $worst->scenario->name,
            'current' => $most,
            'terms' => $terms,
            'inputs' => $inputs,
            'weak' => array_values(array_filter($inputs, self::isWeak(...))),
            'shares' => $shares,
            'missing' => array_map(strval(...), array_keys($missing)),
        ];
    }
}
