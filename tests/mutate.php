<?php

declare(strict_types=1);

/*
 * Mutation testing of the core: small wrong changes, drawn at random, each of which some test should notice.
 *
 *   php tests/mutate.php [N] [SEED] [FOLDER …]     N mutants of these folders of core/src; what survives is listed
 *
 *   MAGPIE_INTO=Holds php tests/mutate.php 50           only those that put this in: verdicts that wrongly hold
 *   MAGPIE_NEAR=1 php tests/mutate.php 200 1 Money      only what the samples and the demo come to, the tests of its own
 *                                                       folder, of the edges and those that name it: sooner, and more survive
 *
 * A mutant never touches the tree: the tests are run with an autoloader that puts the changed file in its class' place.
 * They stop at the first failure, and the slow random ones are left out, so that the share it prints is the least.
 */

$root = dirname(__DIR__);

if (getenv('MAGPIE_MUTANT') !== false) {
    // As the bootstrap of a run: the mutant's class comes from its own file.
    [$class, $file] = explode('=', (string) getenv('MAGPIE_MUTANT'), 2);
    require "{$root}/vendor/autoload.php";
    spl_autoload_register(static function (string $name) use ($class, $file): void {
        $name === $class && (require $file);
    }, prepend: true);

    return;
}

/** What may be put in a token's place, or null. */
const SWAPS = [
    '+' => '-',
    '-' => '+',
    '*' => '/',
    '/' => '*',
    '<' => '<=',
    '>' => '>=',
    '<=' => '<',
    '>=' => '>',
    '===' => '!==',
    '!==' => '===',
    '&&' => '||',
    '||' => '&&',
    '!' => '',
    'true' => 'false',
    'false' => 'true',
    'exceeds' => 'isBelow',
    'isBelow' => 'exceeds',
    'plus' => 'minus',
    'minus' => 'plus',
    'times' => 'over',
    'over' => 'times',
    'min' => 'max',
    'max' => 'min',
    'Lowest' => 'Highest',
    'Highest' => 'Lowest',
    'Danger' => 'Holds',
    'Fails' => 'Holds',
    'Tight' => 'Holds',
    'Unproven' => 'Holds',
    'squared' => 'half',
];

/**
 * @return list<array{int, string, string, string}> line, what was, what is, and the whole text of the file
 */
function mutants(string $path): array
{
    $tokens = PhpToken::tokenize((string) file_get_contents($path));
    $found = [];
    $depth = $skip = 0;
    foreach ($tokens as $i => $token) {
        $depth += $token->text === '{' ? 1 : ($token->text === '}' ? -1 : 0);
        // The sample builds and the words of a card are data, not judgement.
        if ($token->is(T_FUNCTION)) {
            $name = $tokens[$i + 2]->text ?? '';
            $skip = in_array($name, ['examples', 'file', 'bedOn', 'axis'], true) ? $depth + 1 : $skip;
        }
        if ($skip > 0) {
            $skip = $token->text === '}' && $depth < $skip ? 0 : $skip;

            continue;
        }
        $to = match (true) {
            $token->is(T_DNUMBER) => (float) $token->text === 0.0 ? '1.0' : (string) ((float) $token->text * 1.1),
            $token->is(T_LNUMBER) && ! in_array($tokens[$i - 1]->text ?? '', ['=', '['], true) => (string) ((int) $token->text + 1),
            $token->is([T_COMMENT, T_DOC_COMMENT, T_CONSTANT_ENCAPSED_STRING, T_ENCAPSED_AND_WHITESPACE]) => null,
            // What a verdict is compared with decides words, mostly; what is concluded is the judgement.
            in_array($token->text, ['Danger', 'Fails', 'Tight', 'Unproven'], true) &&
                in_array($tokens[$i - 4]->text ?? '', ['===', '!=='], true) => null,
            default => SWAPS[$token->text] ?? null,
        };
        // A sign before a number in a formula counts; one that types a nullable or joins a union does not.
        if ($to === null || $to === $token->text || $depth < 2) {
            continue;
        }
        $text = '';
        foreach ($tokens as $j => $other) {
            $text .= $i === $j ? $to : $other->text;
        }
        $found[] = [$token->line, $token->text, $to, $text];
    }

    return $found;
}

/**
 * @param  list<string>  $names  of a class, and of the check it is
 * @return list<string> files of tests elsewhere that say one of them
 */
function naming(array $names, string $except): array
{
    static $texts = [];
    $root = dirname(__DIR__);
    if ($texts === []) {
        foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator("{$root}/core/tests")) as $file) {
            if (str_ends_with((string) $file, 'Test.php')) {
                $texts[substr((string) $file, strlen($root) + 1)] = (string) file_get_contents((string) $file);
            }
        }
    }
    $found = array_filter(
        $texts,
        static fn (string $text, string $at): bool => ! str_starts_with($at, $except) &&
            preg_match('/\b('.implode('|', array_map(preg_quote(...), $names)).')\b/', $text) === 1,
        ARRAY_FILTER_USE_BOTH,
    );

    return array_keys($found);
}

[$count, $seed] = [(int) ($argv[1] ?? 100), (int) ($argv[2] ?? 1)];
$folders = array_slice($argv, 3) ?: ['Electrical', 'Firmware', 'Mechanical', 'Money', 'Motion', 'Routes', 'Thermal'];
$dice = new Random\Randomizer(new Random\Engine\Mt19937($seed));
$all = [];
$into = getenv('MAGPIE_INTO');
foreach ($folders as $folder) {
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator("{$root}/core/src/{$folder}")) as $file) {
        if ($file->getExtension() === 'php' && ! preg_match('#/(Views|Cures)/#', $file->getPathname())) {
            foreach (mutants($file->getPathname()) as $mutant) {
                if (! is_string($into) || $mutant[2] === $into) {
                    $all[] = [$file->getPathname(), ...$mutant];
                }
            }
        }
    }
}
$drawn = array_map(static fn (int|string $i): array => $all[$i], $dice->pickArrayKeys($all, min($count, count($all))));
$slow =
    'FuzzTest|StandingTest|MissingIsNeverSafer|SingleSpec|RemedySearch|EachProposal|RandomBuild|MeasureFirst|Choice.ComparisonTest';
$running = $survived = [];
$killed = $done = 0;
$folder = sys_get_temp_dir().'/magpie-mutants-'.getmypid();
mkdir($folder);
while ($drawn !== [] || $running !== []) {
    while ($drawn !== [] && count($running) < 2) {
        [$path, $line, $was, $is, $text] = array_pop($drawn);
        $file = "{$folder}/".count($drawn).'.php';
        file_put_contents($file, $text);
        preg_match('/^namespace ([\w\\\\]+);/m', $text, $m);
        // First the tests of its own folder, those of the edges and those that name it, which notice most; the rest only
        // where they do not.
        $own = explode('/', substr($path, strlen("{$root}/core/src/")))[0];
        $names = [
            basename($path, '.php'),
            ...preg_match("/return new Card\(\s*'([\w-]+)'/", $text, $id) === 1 ? [$id[1]] : [],
        ];
        $near = array_filter(
            [
                'core/tests/Proving/WorkedTest.php',
                "core/tests/{$own}",
                'core/tests/Inspection/EdgesTest.php',
                'core/tests/Inspection/ToleranceTest.php',
                ...naming($names, "core/tests/{$own}/"),
            ],
            static fn (string $p): bool => file_exists("{$root}/{$p}"),
        );
        $phpunit =
            escapeshellarg(PHP_BINARY).
            ' -d memory_limit=1G vendor/bin/phpunit --bootstrap tests/mutate.php --stop-on-defect --fail-on-warning --no-output --do-not-cache-result';
        $filter = escapeshellarg("/^(?!.*({$slow}))/");
        $runs = [
            ...array_map(
                static fn (
                    string $tests,
                ): string => "timeout 60 {$phpunit} --no-configuration --filter {$filter} {$tests}",
                $near,
            ),
            ...getenv('MAGPIE_NEAR') === false ? ["timeout 90 {$phpunit} --testsuite core --filter {$filter}"] : [],
        ];
        $process = proc_open(
            ['sh', '-c', implode(' && ', $runs)],
            [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
            $root,
            ['MAGPIE_MUTANT' => "{$m[1]}\\".basename($path, '.php')."={$file}"] + getenv(),
        );
        $running[] = [$process, substr($path, strlen($root) + 1), $line, $was, $is];
    }
    foreach ($running as $i => [$process, $path, $line, $was, $is]) {
        $status = proc_get_status($process);
        if (! $status['running']) {
            $done++;
            if ($status['exitcode'] === 0) {
                $survived[] = $one = "{$path}:{$line}  {$was} → {$is}";
                fwrite(STDERR, "\n{$one}\n");
            } else {
                $killed++;
            }
            fwrite(STDERR, sprintf("\r%d of %d killed", $killed, $done));
            proc_close($process);
            unset($running[$i]);
        }
    }
    usleep(20_000);
}
array_map(unlink(...), glob("{$folder}/*.php") ?: []);
rmdir($folder);
sort($survived);
printf(
    "\n%d of %d mutants killed: %.0f %% (of %d that could be drawn)\n",
    $killed,
    $done,
    (100 * $killed) / max(1, $done),
    count($all),
);
echo implode("\n", $survived), "\n";
