<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Commissioning\Ladder;
use Magpie\Core\Commissioning\Rung;

/** The rungs of the power-up of a build file, from the shell: docs/format/ladder.md describes the shape. */
final class LadderFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie ladder FILE [--format json]';

    /**
     * 0 when every rung is passed, 1 when one is not, 2 when the file cannot be read.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['format'], self::USAGE);
        $format = $options['format'] ?? 'text';
        if (! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $inspection = Rules::inspector()->inspect(FromFile::read($file, $format, 'magpie_ladder', self::VERSION));
        $ladder = new Ladder($inspection->survey, $inspection->open());
        $format === 'json'
            ? FromFile::print(['magpie_ladder' => self::VERSION] + $ladder->toArray())
            : print self::text($ladder);

        return $ladder->next() === null ? 0 : 1;
    }

    private static function text(Ladder $ladder): string
    {
        $data = $ladder->toArray();
        $text = "{$data['build']}: {$data['passed']} of ".count($ladder->rungs)." rungs passed\n";
        foreach ($data['dangers'] as $danger) {
            $text .= "  no power before: {$danger}\n";
        }
        $stage = null;
        foreach ($ladder->rungs as $i => $rung) {
            if ($rung->stage !== $stage) {
                $stage = $rung->stage;
                $text .= "\n{$stage}\n";
            }
            $text .= sprintf("  %3d  %-12s %s\n", $i + 1, $rung->state, $rung->title);
            if ($rung === $ladder->next()) {
                $text .= self::asked($rung, $data['dangers']);
            }
        }

        return $text."\nA planning aid, not a permit: local code and a licensed electrician decide what is mains.\n";
    }

    /**
     * @param  list<string>  $dangers  said once, above
     */
    private static function asked(Rung $rung, array $dangers): string
    {
        $text = '';
        foreach (array_diff($rung->gates, $dangers) as $gate) {
            $text .= "         waits: {$gate}\n";
        }
        foreach ($rung->looks as $look) {
            $text .= $look->done ? '' : "         look: {$look->says}\n";
        }
        foreach ($rung->readings as $shown) {
            $read = $shown['reading'] === null ? '' : ", read {$shown['reading']->value} ({$shown['verdict']->value})";
            $text .= "         read: {$shown['expected']->label}: {$shown['expected']->band()}{$read}\n";
            foreach ($shown['points'] as $point) {
                $text .= "               {$point}\n";
            }
        }

        return $text;
    }
}
