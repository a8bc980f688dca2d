<?php

declare(strict_types=1);

namespace Magpie\Core\Tests;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Reading;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;

/** Many small edits of one build's data, each judged from where the build stands: what StandingTest shows to be right. */
final class Trials
{
    private readonly Reading $reading;

    private readonly Standing $standing;

    /**
     * @param  array<string, mixed>  $data
     */
    public function __construct(array $data)
    {
        $this->reading = BuildFile::reading($data, kept: true);
        $this->standing = Standing::of(Rules::inspector(), $this->reading->build);
    }

    /**
     * @param  array<string, mixed>|null  $data  null for the build as it is
     * @return array<string, Finding> by key
     *
     * @throws \Magpie\Core\Format\CannotReadBuildFile
     */
    public function findings(?array $data = null): array
    {
        return $data === null
            ? $this->standing->findings()
            : $this->standing->after(BuildFile::reading($data, kept: true, earlier: $this->reading)->build)->findings();
    }
}
