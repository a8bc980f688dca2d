<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Reads;

/**
 * Which leads which fuse, breaker or limited output protects: those behind it, up to the next one. Leads with none before
 * them are their source's. An element goes by its port, "F1.out", whether it is drawn in the line or named in a lead.
 */
final class ProtectionZones implements Carried
{
    /** @var array<string, list<string>> element, or source → leads */
    private array $zones = [];

    /** @var array<string, list<string>> need of a fuse → leads that name it */
    private array $naming = [];

    /** @var array<int, string|null> node → what protects it; null with neither that nor a source */
    private array $before = [];

    private readonly ?Reads $reads;

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $s): self => new self($s));
    }

    private function __construct(Survey $survey)
    {
        $build = $survey->build;
        $this->reads = $build->reads();
        $topology = Circuits::of($survey)->topology;
        foreach (PowerLeads::of($survey) as $lead) {
            if ($lead->protection !== null) {
                $this->naming[$lead->protection][] = $lead->ref;
            }
        }
        foreach (PowerLeads::of($survey) as $lead) {
            $zone = self::ofLead($topology, $lead) ?? $this->before($topology, $topology->nearEnd($lead->ref));
            if ($zone !== null) {
                $this->zones[$zone][] = $lead->ref;
            }
        }
        $this->before = [];
    }

    public function carriedTo(Survey $survey, array $changed, bool $stands): CarriedOver
    {
        if ($stands || $survey->reads === null) {
            return new CarriedOver($this, []);
        }
        [$next, $from] = $survey->reads->during(static fn (): self => new self($survey));
        $cells = array_keys($next->zones) === array_keys($this->zones) ? [] : ['zones'];
        foreach (
            ['zone' => [$next->zones, $this->zones], 'fused' => [$next->naming, $this->naming]] as $kind => $both
        ) {
            [$now, $then] = $both;
            foreach ($now + $then as $key => $_) {
                if (($now[$key] ?? null) !== ($then[$key] ?? null)) {
                    $cells[] = "{$kind}/{$key}";
                }
            }
        }

        return new CarriedOver($next, $cells, $from);
    }

    /**
     * @return list<string> elements that protect a lead, and sources of leads that none does
     */
    public function all(): array
    {
        $this->reads?->note('zones');

        return array_map(strval(...), array_keys($this->zones));
    }

    /**
     * @return list<string> leads it protects, or feeds unprotected
     */
    public function leads(string $element): array
    {
        $this->reads?->note("zone/{$element}");

        return $this->zones[$element] ?? [];
    }

    /**
     * @return list<string> leads that name a fuse
     */
    public function naming(string $fuse): array
    {
        $this->reads?->note("fused/{$fuse}");

        return $this->naming[$fuse] ?? [];
    }

    /**
     * @return array{string, string|null} need and port of an element
     */
    public static function placeOf(string $element): array
    {
        $parts = explode('.', $element, 2);

        return [$parts[0], $parts[1] ?? null];
    }

    /** Whether a port is a fuse, or has one or a limit of its own. */
    public static function protects(Fitted $fitted, Port $port): bool
    {
        if (self::isFuse($port)) {
            return true;
        }
        foreach (['fuse_rating', 'limits_at'] as $key) {
            if ($fitted->part->portSpec($port, $key)?->nominal()?->isPositive() === true) {
                return true;
            }
        }

        return false;
    }

    /** Whether the rating of its part is that of the fuse, so that it is one whether or not that is known. */
    private static function isFuse(Port $port): bool
    {
        return ($port->lends['fuse_rating'] ?? null) === 'rated_current';
    }

    /** The element that a lead names; null when it names none. */
    public static function ofLead(Topology $topology, ?Lead $lead): ?string
    {
        return $lead?->protection === null ? null : self::named($topology, $lead->protection);
    }

    /** The element of a need: the port of that part that is a fuse, else the part as it is named. */
    private static function named(Topology $topology, string $need): string
    {
        foreach ($topology->build()->fitted($need)->part->ports ?? [] as $port) {
            if (self::isFuse($port)) {
                return "{$need}.{$port->name}";
            }
        }

        return $need;
    }

    private function before(Topology $topology, int $node): ?string
    {
        $way = [];
        while (true) {
            if (array_key_exists($node, $this->before)) {
                $found = $this->before[$node];
                break;
            }
            $way[] = $node;
            [$fitted, $port] = $topology->at($node);
            $index = $topology->upstream($node);
            if (self::protects($fitted, $port)) {
                $found = "{$fitted->need->ref}.{$port->name}";
                break;
            }
            if ($index === null) {
                $found = $port->kind === PortKind::Source ? "{$fitted->need->ref}.{$port->name}" : null;
                break;
            }
            $joint = $topology->joints[$index];
            $found = self::ofLead($topology, $topology->leadOf($joint));
            if ($found !== null) {
                break;
            }
            $node = $joint->a === $node ? $joint->b : $joint->a;
        }
        foreach ($way as $passed) {
            $this->before[$passed] = $found;
        }

        return $found;
    }
}
