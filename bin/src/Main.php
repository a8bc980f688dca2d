<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Bin\Production\Install;

/** Reads the command line and calls the command. */
final readonly class Main
{
    private const USAGE = <<<'TEXT'
    Frugal Magpie: plan, prove, buy, build and run a machine you make yourself.

      bin/magpie demo  [--port=N] [--fresh]   set up, load the demo workshop and serve it on loopback
      bin/magpie serve [--port=N] [--fresh]   the same without the demo
      bin/magpie check FILE [--format json]   inspect a build file; no database, no server
      bin/magpie order FILE [--by=DATE] [--at-most=MONEY] [--most-suppliers=N] [--without=SUPPLIER] [--format json]
                                              what to order and where, at the least cost, with its proof
      bin/magpie dates FILE [--seed=N] [--from=DATE] [--format json]
                                              when it can be done, what to order by when, what the end hangs on
      bin/magpie prints FILE [--from=DATE] [--format json]
                                              what is printed on which printer and when, and the reels it takes
      bin/magpie steps FILE [--format json]   the steps of assembly that follow from it, in a safe order
      bin/magpie way-back FILE NEED [--format json]
                                              what comes off to reach a part, and what to check again after
      bin/magpie open FILE [--format json]    what is not as it is meant to stay, and what releases it
      bin/magpie picture FILE [--format json|svg|gltf|csv|dxf] [--view plan|front|side] [--of PLACE]
                               where everything sits, what meets, how long each lead is by its way
      bin/magpie ladder FILE [--format json]  the rungs of the power-up: what keeps each closed, what to read
      bin/magpie straight READINGS.json [--format json]
                                              alignments worked from readings, by name
      bin/magpie spectrum LOG.csv [--accepted=MM] [--format json]
                                              resonances of a log of acceleration, and the filter that suits
      bin/magpie note SOUND.wav --span=150mm --mass=8.4g/m [--format json]
                                              the note of a belt, and its tension
      bin/magpie step-response LOG.csv [--step=PERCENT] [--target=CELSIUS] [--format json]
                                              gains of a heater, and the overshoot each gives; the step is read from
                                              the column of its power where the log has one
      bin/magpie job PROGRAM.nc --build FILE [--origin=X,Y,Z] [--format json]
                                              a program held against a machine: travel, speeds, order, time
      bin/magpie book FILE --out BOOK.pdf     the build book: brief to upkeep, and a passport of one page
      bin/magpie mesh FILE.stl [--format json]
                                              volume, area, size of a printed part, and whether it is closed
      bin/magpie account NAME EMAIL WORKSHOP  make an account, while it is served or not; the password is asked for,
                                              or the first line of standard input
      bin/magpie password EMAIL               a link for somebody who lost theirs, where no letters can be sent
      bin/magpie backup  [FILE | --keep]      database, pictures and keys in one archive, while it runs or not;
                                              --keep among those before, which thin out with age
             [--encrypt | --key=FILE]         encrypted with a passphrase (asked for, or MAGPIE_PASSPHRASE), or with a
                                              key file, made where there is none
      bin/magpie restore FILE [--replace] [--key=FILE]
                                              an archive back into an empty place; --replace sets aside what is there
      bin/magpie install --production --host=NAME [--cert=FILE --key=FILE] [--workers=N] [--into=FOLDER]
                                              a server for strangers, with nginx, php-fpm and MariaDB of Debian
      bin/magpie audit                        known holes in the packages it is made of
      bin/magpie test  [core|feature|external|browser [NAME]]
      bin/magpie bench                        inspection time, memory and an edit's round trip
      bin/magpie bench load                   fifty people at once for a minute
      bin/magpie bench hosted                 the same on nginx and php-fpm; then killed at random thirty times
      bin/magpie bench fuzz [COUNT]           files, texts, meshes and programs made at random, 100,000 of them
      bin/magpie bench screen                 an edit in the browser, on 150 parts
      bin/magpie bench buy                    splits beside a peer, dates, a large mesh
      bin/magpie bench run                    the ladder, spectra, programs and the book
      bin/magpie bench picture                places, sweeps and ways of leads
      bin/magpie bench library                the search in a library of 50,000 parts
      bin/magpie bench search                 what to measure first, fixes for one finding and for sixty
      bin/magpie shots                        take the screenshots of docs/screenshots
      bin/magpie docs                         write the docs that follow from the code
      bin/magpie doctor                       what is present, what is missing

    TEXT;

    public function __construct(private string $root)
    {
    }

    /**
     * @param  list<string>  $arguments
     *
     * @throws Failure
     */
    public function run(array $arguments): int
    {
        $command = array_shift($arguments) ?? 'help';
        $terminal = new Terminal;
        $project = new Project($this->root, $terminal);

        switch ($command) {
            case 'demo':
            case 'serve':
                return $this->serve($command === 'demo', $arguments, $project, $terminal);
            case 'check':
            case 'mesh':
                return $this->file($command, $arguments, $project);
            case 'order':
            case 'dates':
            case 'prints':
            case 'steps':
            case 'way-back':
            case 'open':
            case 'picture':
            case 'ladder':
            case 'straight':
            case 'book':
            case 'job':
            case 'spectrum':
            case 'note':
            case 'step-response':
                $this->core($project);

                return match ($command) {
                    'order' => (new OrderFile)->run($arguments),
                    'dates' => (new DatesFile)->run($arguments),
                    'prints' => (new PrintsFile)->run($arguments),
                    'steps' => (new StepsFile)->run($arguments),
                    'way-back' => (new WayBackFile)->run($arguments),
                    'open' => (new OpenFile)->run($arguments),
                    'picture' => (new PictureFile)->run($arguments),
                    'ladder' => (new LadderFile)->run($arguments),
                    'straight' => (new StraightFile)->run($arguments),
                    'book' => (new BookFile)->run($arguments),
                    'job' => (new JobFile)->run($arguments),
                    'spectrum', 'note', 'step-response' => (new TuneFile)->run($command, $arguments),
                };
            case 'account':
                return (new AccountCommand($project, $terminal, self::instance($arguments)))->run($arguments);
            case 'backup':
            case 'restore':
                $keeping = new Safekeeping($project, $terminal, self::instance($arguments));

                return $command === 'backup' ? $keeping->backup($arguments) : $keeping->restore($arguments);
            case 'install':
                return (new Install($project, $terminal))->run($arguments);
            case 'password':
                $project->artisan(self::instance($arguments), ['magpie:password', ...$arguments], true);

                return 0;
            case 'audit':
                return (new Audit($project, $terminal))->run();
            case 'test':
                return (new Tests($project, $terminal))->run($arguments[0] ?? null, $arguments[1] ?? null);
            case 'bench':
                return (new Tests($project, $terminal))->bench($arguments[0] ?? null);
            case 'shots':
                return (new Tests($project, $terminal))->shots();
            case 'docs':
                $project->dependencies();
                passthru(escapeshellarg(PHP_BINARY).' '.escapeshellarg("{$this->root}/bin/docs.php"), $status);

                return $status;
            case 'doctor':
                return (new Packages($terminal))->report();
            case 'help':
            case '--help':
            case '-h':
                echo self::USAGE;

                return 0;
            default:
                throw new Failure("there is no command \"{$command}\"; bin/magpie help lists them.", 2);
        }
    }

    /**
     * @param  list<string>  $arguments
     */
    private function serve(bool $demo, array $arguments, Project $project, Terminal $terminal): int
    {
        $port = null;
        $fresh = false;
        foreach ($arguments as $argument) {
            if (preg_match('/^--port=(\d{2,5})$/', $argument, $m) === 1) {
                $port = (int) $m[1];
            } elseif ($argument === '--fresh') {
                $fresh = true;
            } else {
                throw new Failure("\"{$argument}\" is not understood here; --port=N and --fresh are.", 2);
            }
        }
        $instance = new Instance($project, $terminal, 'main');
        $instance->claim($port);
        if ($fresh) {
            $instance->wipe();
        }
        $project->setUp(Packages::TO_SERVE);
        $instance->start($demo, 4, $port);
        $terminal->say('');
        $terminal->say("  Open      {$instance->url()}");
        if ($demo) {
            $terminal->say(
                '  Sign in   isla@thistle-quay.example · magpie-demo   (or the button that enters the demo workshop)',
            );
        }
        $terminal->say('  Stop      Ctrl-C');
        $terminal->say('');

        return $instance->wait();
    }

    /**
     * @param  list<string>  $arguments
     */
    private function file(string $command, array $arguments, Project $project): int
    {
        $format = 'text';
        $file = null;
        while (($argument = array_shift($arguments)) !== null) {
            if ($argument === '--format' || str_starts_with($argument, '--format=')) {
                $format = $argument === '--format' ? array_shift($arguments) ?? '' : substr($argument, 9);
            } else {
                $file = $argument;
            }
        }
        if ($file === null || ! in_array($format, ['text', 'json'], true)) {
            throw new Failure("usage: bin/magpie {$command} FILE [--format json]", 2);
        }
        $this->core($project);

        return $command === 'mesh' ? (new MeshFile)->run($file, $format) : (new CheckFile)->run($file, $format);
    }

    /**
     * Takes --instance=NAME out of what was given: the one of a laptop where none is named.
     *
     * @param  list<string>  $arguments
     */
    private static function instance(array &$arguments): string
    {
        foreach ($arguments as $i => $argument) {
            if (preg_match('/^--instance=([a-z0-9.-]+)$/', $argument, $m) === 1) {
                array_splice($arguments, $i, 1);

                return $m[1];
            }
        }

        return Safekeeping::INSTANCE;
    }

    /** For what needs the core alone. */
    private function core(Project $project): void
    {
        if (! is_file("{$this->root}/vendor/autoload.php")) {
            $project->dependencies();
        }
        require "{$this->root}/vendor/autoload.php";
    }
}
