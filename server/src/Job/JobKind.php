<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Does one kind of long work. May be begun again at any time: what an earlier attempt left half done is not relied on. */
#[AutoconfigureTag('plinth.job')]
interface JobKind
{
    public static function name(): string;

    public static function lane(): Lane;

    /**
     * @param Attempt $attempt through which alone results are written
     *
     * @throws Superseded when a newer attempt is under way
     * @throws TryAgain when it was no fault of the work
     */
    public function run(Job $job, Attempt $attempt): void;

    /** It was tried for the last time: says so where people see it. */
    public function giveUp(Job $job, string $words): void;
}
