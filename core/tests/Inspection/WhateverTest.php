<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Rules\ContactLoad;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Plausible;
use Magpie\Core\Inspection\Supposition;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Running\AsMeasured;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A doubt that turns nothing is none: what is not known well may be anything plausible, and the verdict is the same. */
final class WhateverTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $plug
     */
    private static function plugged(string $watts, array $plug): Finding
    {
        $file = ContactLoad::bedOn(1);
        $file['parts'][1]['specs']['rated_power'] =
            ['value' => $watts, 'confirmed' => true] + $file['parts'][1]['specs']['rated_power'];
        $file['parts'][2]['specs']['contact_rating'] = $plug;

        return (new SampleBuild(
            array_filter(
                array_replace($file, [
                    'parts' => array_map(
                        static fn (array $p): array => ['specs' => array_filter($p['specs'])] + $p,
                        $file['parts'],
                    ),
                ]),
            ),
        ))->finding('E02/W1');
    }

    public function test_a_contact_at_a_few_per_cent_of_any_is_not_asked_about(): void
    {
        // The smallest contact anyone has seen takes a tenth of an ampere: 75 mA are too many for three quarters of it.
        $small = self::plugged('1.8 W', []);
        self::assertSame(Verdict::Holds, $small->verdict, $small->headline);
        self::assertSame('parts/plug/specs/contact_rating', $small->whatever[0]['where'] ?? null);
        self::assertStringContainsString('whatever contact rating', $small->headline);

        $large = self::plugged('24 W', []);
        self::assertSame(Verdict::Unproven, $large->verdict, $large->headline);
        self::assertSame([], $large->whatever);
    }

    public function test_a_sellers_word_may_be_off_by_half_and_an_assumption_by_three_times(): void
    {
        // 2 A on 10 A is 20 %, 30 % and 60 % of what it may be; 4 A is 40 %, 60 % and 120 %.
        $on = static fn (string $watts, string $evidence): Verdict => self::plugged($watts, [
            'value' => '10 A',
            'evidence' => $evidence,
        ])->verdict;

        self::assertSame(Verdict::Holds, $on('48 W', 'assumed'));
        self::assertSame(Verdict::Holds, $on('96 W', 'listing'));
        self::assertSame(Verdict::Unproven, $on('96 W', 'assumed'));
        self::assertSame(Verdict::Unproven, $on('150 W', 'listing'));
        // Twice what it may carry is so of whatever it may be, and stays a danger.
        self::assertSame(Verdict::Danger, $on('480 W', 'listing'));
    }

    public function test_what_loads_take_leans_with_what_is_said_of_them(): void
    {
        $fans = static fn (string $amps, string $evidence): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'contact_rating' => '10 A']),
                    [
                        [
                            'ref' => 'fan',
                            'family' => 'fan',
                            'name' => 'Fan',
                            'specs' => [
                                'rated_current' => ['value' => $amps, 'evidence' => $evidence],
                                'rated_voltage' => ['value' => '24 V', 'evidence' => 'datasheet'],
                            ],
                        ],
                        Examples::part('fan', 'fan', [])[1],
                    ],
                ],
                [
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'psu.out',
                            'to' => 'fan.power',
                            'route' => 'fixed',
                            'conductor' => ['size' => '20 AWG', 'evidence' => 'datasheet'],
                        ],
                    ],
                ],
            ),
        ))->finding('E03/W1');

        // Gauge 20 may carry 5 A here, 80 % of it holds: 1.2 A three times over does, 1.4 A does not.
        self::assertSame(Verdict::Holds, $fans('1.2 A', 'assumed')->verdict, $fans('1.2 A', 'assumed')->headline);
        self::assertSame(Verdict::Unproven, $fans('1.4 A', 'assumed')->verdict);
        self::assertSame(Verdict::Holds, $fans('2.6 A', 'listing')->verdict);
    }

    /**
     * @return iterable<string, array{Build, int}>
     */
    public static function builds(): iterable
    {
        foreach (['linnet', 'dunlin'] as $name) {
            $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json"));
            // A reading would go on counting, whatever is put on the sheet.
            yield $name => [$build->with(['readings' => []]), 1];
        }
        foreach (Rules::inspector()->checks as $check) {
            yield $check->card()->id => [$check->examples()->holding(), 9];
        }
    }

    /**
     * What a check says with a value supposed is what it says of a build in which that is the value: nothing is read
     * past the inquiry.
     *
     * @param  int  $each  findings judged of one check and one key
     */
    #[DataProvider('builds')]
    public function test_what_is_supposed_is_judged_as_if_it_were_so(Build $build, int $each): void
    {
        $inspector = Rules::inspector();
        $survey = new Survey(AsMeasured::of($build));
        $data = BuildFile::data($build);
        $seen = [];
        $compared = 0;
        foreach ($inspector->checks as $i => $check) {
            foreach ($inspector->asked($i, $survey) as $inquiry) {
                $finding = $inspector->ask($check, $inquiry, $survey);
                foreach ($finding->inputs as $input) {
                    $value = $input->quantity();
                    $bounds = Plausible::of($build, $input->where, $input);
                    [$section, $ref, $specs, $key] = explode('/', $input->where) + ['', '', '', ''];
                    $id = "{$finding->card->id} {$key}";
                    if (
                        $value === null ||
                        $bounds === null ||
                        "{$section}/{$specs}" !== 'parts/specs' ||
                        ($seen[$id] ?? 0) >= $each
                    ) {
                        continue;
                    }
                    $seen[$id] = ($seen[$id] ?? 0) + 1;
                    $other = $value->times(1.3);
                    $supposed = new Supposition([$input->where => $other], Supposition::AS_SAID);
                    $as = $inspector->judging($check, $inquiry, $survey)($supposed);
                    if ($supposed->used() === []) {
                        continue;
                    }
                    $so = self::so($data, $ref, $key, $other, $finding->key());
                    if ($so !== null) {
                        $compared++;
                        self::assertSame(
                            self::said($so),
                            self::said($as),
                            "{$finding->key()} with {$input->where} {$other}",
                        );
                    }
                }
            }
        }
        self::assertGreaterThanOrEqual(0, $compared);
    }

    /**
     * @param  array<string, mixed>  $data
     */
    private static function so(array $data, string $part, string $key, Quantity $value, string $finding): ?Finding
    {
        foreach ($data['parts'] as &$one) {
            if ($one['ref'] === $part) {
                unset($one['specs'][$key]['tolerance']);
                $one['specs'][$key]['value'] = $value->text();
            }
        }

        return Rules::inspector()->find(BuildFile::build($data), $finding);
    }

    /**
     * @return array{string, string}
     */
    private static function said(Finding $finding): array
    {
        return [
            ($finding->otherwise ?? $finding->verdict)->value,
            $finding->margin === null ? '' : sprintf('%.5f', $finding->margin->in('')),
        ];
    }
}
