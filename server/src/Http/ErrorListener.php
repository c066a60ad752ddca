<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

use Doctrine\DBAL\Exception\RetryableException;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Fault\Fault;
use Plinth\Core\Ink\Page\Exception\UnreadableRaster;
use Plinth\Core\Plan\Network\Exception\TooMuchToDerive;
use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Security\Core\Exception\AuthenticationException;

/** The one place where failures become HTTP answers. */
final readonly class ErrorListener
{
    public function __construct(private LoggerInterface $logger)
    {
    }

    #[AsEventListener(priority: 20)]
    public function __invoke(ExceptionEvent $event): void
    {
        $e = $event->getThrowable();
        // The firewall turns these into its own answers.
        if ($e instanceof AccessDeniedException || $e instanceof AuthenticationException) {
            return;
        }
        $event->setResponse($this->answer($e));
    }

    private function answer(\Throwable $e): Response
    {
        return match (true) {
            $e instanceof Refusal => self::refused($e),
            $e instanceof UnreadableDocument => ErrorAnswer::of(422, 'unreadable', $e->getMessage(), $e->at()),
            $e instanceof TooMuchToDerive => ErrorAnswer::of(413, 'too-much', $e->getMessage(), 'operations'),
            // Grey values are kept by ourselves: what is wrong with them is our failure.
            $e instanceof UnreadableRaster => $this->failure($e),
            $e instanceof Fault => ErrorAnswer::of(422, $e->why(), $e->getMessage(), $e->at()),
            DatabaseTrouble::isFull($e) => self::refused(Refusal::noRoomForChanges()),
            DatabaseTrouble::isAway($e) => ErrorAnswer::of(
                503,
                'database-away',
                'The database does not answer. Nothing is lost: this is tried again.',
            ),
            $e instanceof RetryableException, $e instanceof UniqueConstraintViolationException => ErrorAnswer::of(
                503,
                'busy',
                'Somebody else was writing at this moment. This is tried again.',
            ),
            $e instanceof HttpExceptionInterface => ErrorAnswer::of(
                $e->getStatusCode(),
                404 === $e->getStatusCode() ? 'not-found' : 'refused',
                404 === $e->getStatusCode() ? 'There is nothing here, or it is not yours.' : $e->getMessage(),
            ),
            default => $this->failure($e),
        };
    }

    private static function refused(Refusal $e): Response
    {
        return ErrorAnswer::of($e->status, $e->reason, $e->getMessage(), $e->at, $e->more);
    }

    private function failure(\Throwable $e): Response
    {
        $this->logger->critical($e->getMessage(), ['exception' => $e]);

        return ErrorAnswer::of(500, 'failure', 'This went wrong on our side and is in the log. What was saved before is safe; try again.');
    }
}
