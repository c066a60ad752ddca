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
     * @param Attempt $attempt which is told how far the work is, and through which alone results are written
     *
     * @throws Superseded when it was stopped, or a newer attempt is under way
     * @throws Failed in words
     */
    public function run(Job $job, Attempt $attempt): void;
}
