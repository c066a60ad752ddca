<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Server\Http\Refusal;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;

/**
 * How long one change may take while others wait for it: well before the server in front gives up, so that it is judged, and rolled
 * back, here.
 */
final class Deadline
{
    private const SECONDS = 30.0;

    private float $until = \INF;

    #[AsEventListener(priority: 1000)]
    public function begin(RequestEvent $event): void
    {
        $this->until = microtime(true) + self::SECONDS;
    }

    /** @throws Refusal when the time is over */
    public function check(): void
    {
        if (microtime(true) > $this->until) {
            throw Refusal::tooMuch(
                \sprintf('This change would take longer than %d seconds, so nothing of it was made. Do it in parts.', (int) self::SECONDS),
            );
        }
    }
}
