<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Server\Account\User;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use Symfony\Component\Uid\Uuid;

/**
 * Stands before every action: writes must come from our own pages, and whoever asks must be who the action says. Writes carry the
 * header `csrf-token: csrf-token`, which other origins cannot send, and the browser's own Sec-Fetch-Site, Origin or Referer must
 * speak for this site.
 */
final readonly class RouteGuard
{
    /** of JSON: two thousand operations with all they may hold */
    private const MOST_BYTES = 8_000_000;

    public function __construct(private CsrfTokenManagerInterface $tokens, private Security $security, private ProjectAccess $access, private ScriptTokens $scripts)
    {
    }

    #[AsEventListener]
    public function __invoke(ControllerEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || !str_starts_with($request->getPathInfo(), '/api/')) {
            return;
        }
        $needs = $event->getAttributes(Needs::class)[0] ?? throw Refusal::notFound(); // no action of ours: ours all say who may use them
        if (!$request->isMethodSafe() && !$this->tokens->isTokenValid(new CsrfToken('api', $request->headers->get('csrf-token')))) {
            throw Refusal::crossOrigin();
        }
        if (
            !$request->isMethodSafe()
            && !str_starts_with((string) $request->headers->get('Content-Type'), 'multipart/')
            && (int) $request->headers->get('Content-Length') > self::MOST_BYTES
        ) {
            throw Refusal::tooLarge(\sprintf('A request holds at most %d MB. Make it in parts.', self::MOST_BYTES / 1_000_000));
        }
        if ($this->scripts->matches($request)) {
            $token = $this->scripts->of($request) ?? throw Refusal::signedOut();
            if (!$request->isMethodSafe() || Who::Reader !== $needs->who || !$token->project()->equals(self::project($request))) {
                throw Refusal::tokenReads();
            }
        }
        if (Who::Anybody === $needs->who) {
            return;
        }
        if (!$this->security->getUser() instanceof User) {
            throw Refusal::signedOut();
        }
        if (Who::SignedIn !== $needs->who) {
            $project = $this->access->project(self::project($request));
            $role = $this->access->role($project);
            if (Who::Owner === $needs->who && Role::Owner !== $role) {
                throw Refusal::ownerOnly();
            }
            if (Who::Editor === $needs->who && !$role->mayWrite()) {
                throw Refusal::readOnly();
            }
            if (null !== $project->binned() && !$needs->inBin) {
                throw Refusal::inBin($project->name());
            }
        }
    }

    private static function project(Request $request): Uuid
    {
        $id = $request->attributes->get('project');

        return \is_string($id) && Uuid::isValid($id) ? Uuid::fromString($id) : throw Refusal::notFound();
    }
}
