<?php

declare(strict_types=1);

namespace App\Resident;

use DateTimeImmutable;
use Magpie\Core\Advice\Overview;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Reading;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;

/** A build as the resident inspector holds it: as it was read last, and what is judged of it. */
final class HeldBuild
{
    /** @var array<string, array<string, mixed>> what was told of each finding */
    private array $told = [];

    /** Edits after which it is inspected from nothing, so that nothing it once read is kept for ever. */
    private const FRESH = 1000;

    private int $edits = 0;

    private function __construct(private int $revision, private Reading $reading, private Standing $standing)
    {
    }

    /**
     * @param  array<string, mixed>  $data
     *
     * @throws CannotReadBuildFile
     */
    public static function of(int $revision, array $data): self
    {
        $reading = BuildFile::reading($data, kept: true);
        $held = new self($revision, $reading, Standing::of(Rules::inspector(), $reading->build));
        $held->told = array_map(static fn (Finding $f): array => $f->summary(), $held->standing->findings());

        return $held;
    }

    /**
     * Takes over another state of the build. What it was before does not matter: it is held against what is here.
     *
     * @param  array<string, mixed>  $data
     * @return array{since: int, changed: list<array<string, mixed>>, gone: list<string>} findings that are told
     *     otherwise than at the revision it held before
     *
     * @throws CannotReadBuildFile then nothing is taken over
     */
    public function become(int $revision, array $data): array
    {
        $reading = BuildFile::reading($data, kept: true, earlier: $this->reading);
        $standing =
            ++$this->edits % self::FRESH === 0
                ? Standing::of(Rules::inspector(), $reading->build)
                : $this->standing->after($reading->build);
        $since = $this->revision;
        [$this->revision, $this->reading, $this->standing] = [$revision, $reading, $standing];
        $changed = [];
        foreach ($standing->judged() as $finding) {
            $key = $finding->key();
            $summary = $finding->summary();
            if (($this->told[$key] ?? null) !== $summary) {
                $changed[] = $this->told[$key] = $summary;
            }
        }
        $gone = array_map(strval(...), array_keys(array_diff_key($this->told, $standing->findings())));
        $this->told = array_intersect_key($this->told, $standing->findings());

        return ['since' => $since, 'changed' => $changed, 'gone' => $gone];
    }

    public function isAt(int $revision): bool
    {
        return $this->revision === $revision;
    }

    /**
     * @return array<string, mixed> as Overview has it
     */
    public function overview(bool $withFindings): array
    {
        return (new Overview($this->standing->inspection(), new DateTimeImmutable))->toArray($withFindings);
    }

    /**
     * Inspects the build from nothing and takes that over where it says anything else.
     *
     * @return list<string> findings in which what was held was wrong
     */
    public function heal(): array
    {
        $fresh = self::of($this->revision, $this->reading->data);
        $wrong = [];
        foreach ($fresh->standing->findings() + $this->standing->findings() as $key => $_) {
            $is = ($fresh->standing->findings()[$key] ?? null)?->toArray();
            if ($is !== ($this->standing->findings()[$key] ?? null)?->toArray()) {
                $wrong[] = (string) $key;
            }
        }
        if ($wrong !== []) {
            [$this->reading, $this->standing, $this->told] = [$fresh->reading, $fresh->standing, $fresh->told];
        }

        return $wrong;
    }

    /**
     * @return list<array{string, string}> findings whose rule could not be carried through, and why
     */
    public function troubles(): array
    {
        $troubles = [];
        foreach ($this->standing->judged() as $finding) {
            if ($finding->trouble !== null) {
                $troubles[] = [$finding->key(), $finding->trouble];
            }
        }

        return $troubles;
    }
}
