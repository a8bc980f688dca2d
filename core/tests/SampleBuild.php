<?php

declare(strict_types=1);

namespace Magpie\Core\Tests;

use LogicException;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inspector;
use Magpie\Core\Machine\Build;

/** A build written for a test, and what the inspector says of it. */
final readonly class SampleBuild
{
    public Build $build;

    /**
     * @param  array<string, mixed>|Build  $build
     */
    public function __construct(array|Build $build)
    {
        $this->build =
            $build instanceof Build
                ? $build
                : BuildFile::build(
                    $build + [
                        'magpie' => BuildFile::VERSION,
                        'build' => ['name' => 'Under test', 'kind' => 'test', 'currency' => 'GBP'],
                        'site' => ['ambient' => '30 °C', 'mains_voltage' => '230 V', 'tariff' => '0.28'],
                    ],
                );
    }

    public function finding(string $key): Finding
    {
        return Rules::inspector()->find($this->build, $key) ??
            throw new LogicException("The build has no finding {$key}.");
    }
}
