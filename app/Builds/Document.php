<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Build;
use App\Models\Snapshot;
use DateTimeImmutable;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Inspector;
use Magpie\Core\Inspection\Overview;
use Magpie\Core\Machine\Build as Machine;

/**
 * A build as the application works with it: the canonical file, the machine it describes and what is judged of it. Kept
 * as a snapshot of its revision, which is rebuilt from the tables whenever it is missing or old.
 */
final class Document
{
    private ?Machine $machine = null;

    private ?Inspection $inspection = null;

    /**
     * @param  array<string, mixed>  $data
     */
    private function __construct(public readonly array $data)
    {
    }

    public static function of(Build $build): self
    {
        $snapshot = Snapshot::query()->find($build->id);

        return new self($snapshot !== null && $snapshot->revision === $build->revision
            ? json_decode($snapshot->document, true, 64, JSON_THROW_ON_ERROR)
            : (new Store($build))->document());
    }

    /**
     * @param  array<string, mixed>  $data  in canonical form
     */
    public static function from(array $data): self
    {
        return new self($data);
    }

    /** @throws \Magpie\Core\Format\CannotReadBuildFile */
    public function machine(): Machine
    {
        return $this->machine ??= BuildFile::build($this->data);
    }

    public function inspection(): Inspection
    {
        return $this->inspection ??= Inspector::standard()->inspect($this->machine());
    }

    /** The overview of a build as JSON text: the stored one of today when nothing changed, else worked out and stored. */
    public static function overview(Build $build): string
    {
        $snapshot = Snapshot::query()->select('revision', 'day', 'inspection', 'build_id')->find($build->id);
        if ($snapshot !== null && $snapshot->revision === $build->revision && $snapshot->getAttribute('day') === self::today()->format('Y-m-d')) {
            return $snapshot->inspection;
        }

        return self::of($build)->keep($build);
    }

    /** Stores the snapshot of this revision and returns the overview it holds. */
    public function keep(Build $build): string
    {
        $overview = self::json((new Overview($this->inspection(), self::today()))->toArray());
        Snapshot::query()->upsert([[
            'build_id' => $build->id,
            'revision' => $build->revision,
            'day' => self::today()->format('Y-m-d'),
            'document' => self::json($this->data),
            'inspection' => $overview,
        ]], ['build_id']);

        return $overview;
    }

    public static function json(mixed $data): string
    {
        return json_encode($data, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);
    }

    private static function today(): DateTimeImmutable
    {
        return new DateTimeImmutable;
    }
}
