<?php

declare(strict_types=1);

namespace Magpie\Bin;

/**
 * One program an instance keeps running beside itself: started, looked after, restarted when it dies, ended with the
 * rest.
 */
final class Service
{
    private int $pid = 0;

    private readonly Restarts $restarts;

    /**
     * @param  list<string>  $command
     * @param  array<string, string>  $environment
     * @param  string  $pidFile  where its number is kept, so that a later start finds what a killed one left
     */
    public function __construct(
        public readonly string $name,
        private readonly array $command,
        private readonly string $log,
        private readonly string $pidFile,
        private readonly array $environment = [],
        private readonly ?string $folder = null,
        private readonly int $workers = 0,
    ) {
        $this->restarts = new Restarts;
    }

    public function start(): void
    {
        $this->pid = Background::start(
            $this->command,
            $this->log,
            // By this it knows when whoever looks after it is gone.
            $this->environment + ['MAGPIE_PARENT' => (string) getmypid()],
            $this->folder,
        );
        file_put_contents($this->pidFile, (string) $this->pid);
    }

    public function runs(): bool
    {
        return $this->pid !== 0 && Background::runs($this->pid);
    }

    public function pid(): int
    {
        return $this->pid;
    }

    /** Whether it, and every worker it was started with, is still there. */
    public function isWhole(): bool
    {
        $children = Background::children($this->pid);

        return $this->runs() && ($children === null || count($children) >= $this->workers);
    }

    /** @throws Failure when it dies again and again */
    public function restart(): void
    {
        $this->restarts->note($this->name, $this->log);
        $this->stop();
        $this->start();
    }

    /** What is being answered is finished first. */
    public function stop(): void
    {
        if ($this->pid !== 0) {
            Background::stop($this->pid, 5, SIGINT);
            $this->pid = 0;
        }
        @unlink($this->pidFile);
    }

    /** Ends what a start that was killed left running. */
    public static function endLeftover(string $pidFile, string $mark): void
    {
        $pid = (int) @file_get_contents($pidFile);
        if ($pid > 0 && str_contains((string) @file_get_contents("/proc/{$pid}/cmdline"), $mark)) {
            Background::stop($pid, 5);
        }
        @unlink($pidFile);
    }
}
