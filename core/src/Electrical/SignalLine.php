<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortRef;

/** A signal lead told apart: who speaks and who listens. */
final readonly class SignalLine
{
    private const LISTENS = [
        'control' => [Ability::Switches, Ability::FeedsPhases],
        'coil' => [Ability::HasCoil],
        'torch' => [Ability::Arcs],
    ];

    private function __construct(
        public Lead $lead,
        public Fitted $from,
        public Port $out,
        public Fitted $to,
        public Port $in,
    ) {
    }

    public static function of(Build $build, Lead $lead): ?self
    {
        foreach ([[$lead->from, $lead->to], [$lead->to, $lead->from]] as [$one, $other]) {
            [$from, $to] = [$build->fitted($one->need), $build->fitted($other->need)];
            $out = $from->part->ports[$one->port] ?? null;
            $in = $to->part->ports[$other->port] ?? null;
            if ($from === null || $to === null || $out === null || $in === null) {
                return null;
            }
            if ($from->part->can(Ability::Speaks) && preg_match('/^signal(-\d+)?$/', $out->name) === 1) {
                [$to, $in] = self::end($build, $other, $lead->ref) ?? [$to, $in];

                return new self($lead, $from, $out, $to, $in);
            }
            if (self::listens($to, $in)) {
                [$from, $out] = self::end($build, $one, $lead->ref) ?? [$from, $out];

                return new self($lead, $from, $out, $to, $in);
            }
        }

        return null;
    }

    /**
     * Where a line begins or ends, through what joins it on the way.
     *
     * @return array{Fitted, Port}|null
     */
    private static function end(Build $build, PortRef $at, string $by): ?array
    {
        foreach ($build->beyond($at, $by) as $end) {
            $fitted = $build->fitted($end->need);
            $port = $fitted->part->ports[$end->port] ?? null;
            if ($fitted !== null && $port !== null) {
                return [$fitted, $port];
            }
        }

        return null;
    }

    /** What closes the signal: contact, sinking, sourcing, push-pull; null when it is not known. */
    public function output(): ?string
    {
        return $this->isContact() ? 'contact' : $this->from->part->spec('output')?->choice();
    }

    /** Whether what speaks is two contacts, whatever stands behind them. */
    public function isContact(): bool
    {
        return $this->from->part->can(Ability::Speaks) && $this->from->part->family->field('output') === null;
    }

    private static function listens(Fitted $to, Port $in): bool
    {
        return $to->part->canAny(...self::LISTENS[$in->name] ?? []);
    }
}
