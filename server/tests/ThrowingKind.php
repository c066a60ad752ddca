<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Job\PutsBack;

/** Long work that fails as it is told to. */
final class ThrowingKind implements PutsBack
{
    public bool $isBack = false;

    public function __construct(private readonly \Throwable $what)
    {
    }

    public static function name(): string
    {
        return 'throws';
    }

    public static function lane(): Lane
    {
        return Lane::Quick;
    }

    public function run(Job $job, Attempt $attempt): void
    {
        posix_kill(posix_getpid(), \SIGTERM); // the worker ends after this one
        throw $this->what;
    }

    public function putBack(Job $job): void
    {
        $this->isBack = true;
    }
}
