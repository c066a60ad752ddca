<?php

declare(strict_types=1);

namespace Plinth\Server\Job;

use Plinth\Server\Http\Refusal;

/** Why long work comes to nothing, in words for whoever waits for it. */
class Failed extends \RuntimeException
{
    /** @param bool $mayTryAgain it was no fault of the work: something from outside ended it */
    public function __construct(string $words, public readonly string $reason = 'failed', public readonly bool $mayTryAgain = false)
    {
        parent::__construct($words);
    }

    public static function because(string $words): self
    {
        return new self($words);
    }

    public static function refused(Refusal $refusal): self
    {
        return new self($refusal->getMessage(), $refusal->reason);
    }

    public static function eachTime(): self
    {
        return new self(
            'This was begun several times and broke off each time. Try again, or bring the file in saved another way.',
            'broke-off',
        );
    }

    public static function byUs(): self
    {
        return new self('This went wrong on our side and is in the log. Try again.', 'fault');
    }
}
