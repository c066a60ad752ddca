<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerArgumentsEvent;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;

/**
 * Refuses writes from other origins: they must carry the header `csrf-token: csrf-token`, and the browser's own
 * Sec-Fetch-Site, Origin or Referer must speak for this site.
 */
final readonly class WriteGuard
{
    public function __construct(private CsrfTokenManagerInterface $tokens)
    {
    }

    #[AsEventListener]
    public function __invoke(ControllerArgumentsEvent $event): void
    {
        if ([] !== $event->getAttributes(Write::class) && !$this->tokens->isTokenValid(new CsrfToken('api', $event->getRequest()->headers->get('csrf-token')))) {
            throw Refusal::crossOrigin();
        }
    }
}
