<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;

/** A fuse of its own in each of several leads, the smallest of a kind that carries what goes through it. */
final readonly class FusesInLeads implements Cure
{
    /** Share of its rating a fuse is loaded to. */
    private const LOADED = 0.8;

    public function families(Finding $finding, Build $build): array
    {
        return ['fuse'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $leads = LeadsAt::of($finding, $at);
        if (count($leads) < 2) {
            return;
        }
        $kinds = [];
        foreach (FuseInLead::bySize($at) as $entry) {
            $kinds[(string) $entry->part->spec('kind')?->choice()][] = $entry;
        }
        foreach ($kinds as $entries) {
            $chosen = $this->chosen($leads, $entries, $at);
            if ($chosen !== []) {
                yield $this->fitted($chosen, $at);
            }
        }
    }

    /**
     * @param  non-empty-list<Lead>  $leads
     * @param  list<Entry>  $entries  the smallest first
     * @return list<array{Entry, non-empty-list<string>}> which for which leads; none when one finds none
     */
    private function chosen(array $leads, array $entries, Repair $at): array
    {
        $circuits = Circuits::of($at->survey);
        $chosen = [];
        foreach ($leads as $lead) {
            $load = $circuits->worstFor($lead->ref)?->current($lead->ref);
            foreach ($entries as $i => $entry) {
                $rated = $entry->part->spec('rated_current')?->nominal();
                if ($load !== null && $rated !== null && ! $load->exceeds($rated->times(self::LOADED))) {
                    $chosen[$i] = [$entry, [...$chosen[$i][1] ?? [], $lead->ref]];

                    continue 2;
                }
            }

            return [];
        }
        ksort($chosen);

        return array_values($chosen);
    }

    /**
     * @param  non-empty-list<array{Entry, non-empty-list<string>}>  $chosen
     */
    private function fitted(array $chosen, Repair $at): Remedy
    {
        $changes = $says = [];
        $needs = $at->build->needs;
        foreach ($chosen as [$entry, $leads]) {
            $need = Adopting::free("F-{$leads[0]}", $needs);
            $names = implode(', ', $leads);
            array_push(
                $changes,
                ...Adopting::need(
                    $at->build,
                    $entry,
                    $need,
                    count($leads) === 1 ? "Fuse in {$names}" : "Fuses in {$names}",
                    [
                        'quantity' => count($leads),
                        'spares' => '100 %',
                        'purpose' => 'safety',
                    ],
                ),
            );
            foreach ($leads as $lead) {
                $changes[] = Remedy::set('leads', $lead, ['protection'], $need);
            }
            $says[] = (count($leads) === 1 ? '' : count($leads).' × ')."{$entry->part->name} in {$names}";
        }

        return new Remedy(implode(', ', $says), $changes, true);
    }
}
