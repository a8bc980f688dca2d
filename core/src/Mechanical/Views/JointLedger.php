<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Views;

use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\ScrewStack;
use Magpie\Core\Reference\Fasteners;

/**
 * Every joint with the screw it has and the screw it wants, torque and tool; every bag of screws with what it is used
 * for.
 */
final readonly class JointLedger
{
    public function __construct(private Inspection $inspection)
    {
    }

    /**
     * Lengths in mm, torques in N m.
     *
     * @return array{joints: list<array<string, mixed>>, bags: list<array<string, mixed>>}
     */
    public function toArray(): array
    {
        $build = $this->inspection->survey->build;
        $findings = [];
        foreach ($this->inspection->findings as $finding) {
            $of = $finding->subject->ref;
            if (
                in_array(Topic::Joints, $finding->card->topics, true) &&
                (! isset($findings[$of]) || $finding->verdict->rank() < $findings[$of]->verdict->rank())
            ) {
                $findings[$of] = $finding;
            }
        }
        $joints = $used = [];
        foreach ($build->mates as $mate) {
            $rows = $mate->screws === [] ? [null] : $mate->screws;
            foreach ($rows as $i => $stack) {
                $finding = $findings["{$mate->ref}/{$i}"] ?? ($findings[$mate->ref] ?? null);
                $joints[] = $this->joint(
                    $mate->ref,
                    "{$mate->kind}: {$build->roleOf($mate->between[0])} to {$build->roleOf($mate->between[1])}",
                    $i,
                    $stack,
                    $finding,
                );
                if ($stack?->screw !== null) {
                    $used[$stack->screw][] = ['where' => $mate->kind, 'pieces' => $stack->count];
                }
            }
        }

        return ['joints' => $joints, 'bags' => $this->bags($used)];
    }

    /**
     * @return array<string, mixed>
     */
    private function joint(string $mate, string $label, int $index, ?ScrewStack $stack, ?Finding $finding): array
    {
        $screw = $stack?->screw === null ? null : $this->inspection->survey->build->fitted($stack->screw);
        $thread = $screw?->part->spec('thread')?->choice();
        $head = $screw?->part->spec('head')?->choice() ?? 'cap';
        $figure = static function (string $key) use ($finding): ?float {
            $value = $finding->figures[$key][1] ?? null;

            return $value === null ? null : round($value->in('mm'), 2);
        };
        [$clamped, $engaged, $wanted] = [$figure('clamped'), $figure('engaged'), $figure('wanted')];
        $torque = $thread === null ? null : Fasteners::torque($thread, $stack->material->value ?? 'steel')?->in('N m');
        $fits = $figure('fits');

        return [
            'mate' => $mate,
            'index' => $index,
            'label' => $label,
            'key' => $finding?->key(),
            'verdict' => $finding?->verdict->value,
            'says' => $finding?->headline,
            'thread' => $thread,
            'head' => $thread === null ? null : $head,
            'length' => $screw?->part->spec('length')?->nominal()?->in('mm'),
            'count' => $stack->count ?? 0,
            'clamped' => $clamped,
            'engaged' => $engaged,
            'wanted' => $wanted,
            'suggested' => $fits === null ? null : (int) $fits,
            'torque' => $torque === null ? null : round($torque, 2),
            'tool' => $thread === null ? null : Fasteners::key($thread, $head)?->in('mm'),
            'hole' => $thread === null ? null : Fasteners::clearance($thread)?->in('mm'),
        ];
    }

    /**
     * @param  array<string, list<array{where: string, pieces: int}>>  $used  by need
     * @return list<array<string, mixed>> one a bag: in it, used, left, short, and the packs to order
     */
    private function bags(array $used): array
    {
        $build = $this->inspection->survey->build;
        $bags = [];
        foreach ($build->fittedThat(Ability::Fastens) as $ref => $fitted) {
            $uses = $used[$ref] ?? [];
            $wanted = array_sum(array_column($uses, 'pieces'));
            $have = $fitted->need->quantity;
            $spare = $fitted->need->sparesOf($have);
            $pack = $this->pack($fitted);
            $order = max(0, max($wanted, $have) + $spare - $fitted->need->owned);
            $bags[] = [
                'need' => $ref,
                'role' => $fitted->need->role,
                'part' => $fitted->part->name,
                'planned' => $have,
                'used' => $wanted,
                'left' => $have - $wanted,
                'spare' => $spare,
                'owned' => $fitted->need->owned,
                'why' => $uses === []
                        ? 'no joint names it'
                        : implode(
                            ', ',
                            array_map(static fn (array $u): string => "{$u['pieces']} × {$u['where']}", $uses),
                        ),
                'counted' => $fitted->part->can(Ability::Screws),
                'pack' => $pack,
                'packs' => $pack === null ? null : (int) ceil($order / $pack),
                'order' => $order,
            ];
        }

        return $bags;
    }

    private function pack(Fitted $fitted): ?int
    {
        foreach ($this->inspection->survey->build->offers as $offer) {
            if ($offer->part === $fitted->part->ref) {
                return $offer->pack;
            }
        }

        return null;
    }
}
