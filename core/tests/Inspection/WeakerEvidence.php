<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;

/** The same build, with every spec of every part resting on a seller's listing. */
final class WeakerEvidence
{
    public static function of(Build $build): Build
    {
        $data = BuildFile::data($build);
        foreach ($data['parts'] ?? [] as $i => $part) {
            foreach ($part['specs'] ?? [] as $key => $spec) {
                $data['parts'][$i]['specs'][$key]['evidence'] = 'listing';
            }
        }

        return BuildFile::build($data);
    }
}
