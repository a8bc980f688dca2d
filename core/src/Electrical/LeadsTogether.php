<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Quantity\Quantity;

/** What several leads carry at once: through one fuse, or through one plug. */
final class LeadsTogether
{
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
        $flows = Circuits::of($survey)->flows();
        $worst = $most = null;
        foreach ($flows as $flow) {
            $sum = self::sum($flow, $leads);
            if ($sum !== null && ($most === null || $sum->exceeds($most))) {
                [$worst, $most] = [$flow, $sum];
            }
        }
        if ($worst === null || $most === null) {
            $inquiry->lack("what goes through {$where}");
        }
        $inquiry->in($worst->scenario->name);
        $symbols = [];
        foreach ($leads as $ref) {
            PowerLeads::missing($inquiry, array_map(static fn (Flow $f): array => $f->behind($ref), $flows));
            foreach ($worst->behind($ref) as $demand) {
                $inquiry->absorb($demand->inputs);
            }
            $symbols["I_{$ref}"] = $worst->current($ref) ?? $inquiry->lack("the current of {$ref}");
        }

        return $inquiry->work(
            "All that goes through {$where} in \"{$worst->scenario->name}\"",
            'I = '.implode(' + ', array_keys($symbols)),
            $symbols,
            $most,
            'A',
        );
    }

    /**
     * @param  list<string>  $leads
     */
    private static function sum(Flow $flow, array $leads): ?Quantity
    {
        $known = array_filter(array_map($flow->current(...), $leads));

        return $known === []
            ? null
            : array_reduce(
                $known,
                static fn (Quantity $sum, Quantity $one): Quantity => $sum->plus($one),
                Quantity::of(0, 'A'),
            );
    }
}
