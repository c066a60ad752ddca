<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Account\User;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\ErrorAnswer;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\RequestMatcherInterface;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\BadCredentialsException;
use Symfony\Component\Security\Http\AccessToken\AccessTokenHandlerInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationFailureHandlerInterface;
use Symfony\Component\Security\Http\Authenticator\Passport\Badge\UserBadge;

/**
 * Scripts show a token instead of signing in (`Authorization: Bearer …`, RFC 6750): they read what the owner of its project reads, in that
 * project alone, which `RouteGuard` sees to. They have no session.
 */
final readonly class ScriptTokens implements AccessTokenHandlerInterface, AuthenticationFailureHandlerInterface, RequestMatcherInterface
{
    private const SHOWN_BY = 'Bearer ';
    /** s: how exactly it is known when a token was used last */
    private const EXACT = 60;

    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    public function matches(Request $request): bool
    {
        return str_starts_with((string) $request->headers->get('Authorization'), self::SHOWN_BY);
    }

    /** The token that a request shows; null where it is not known. */
    public function of(Request $request): ?ProjectToken
    {
        return $this->known(substr((string) $request->headers->get('Authorization'), \strlen(self::SHOWN_BY)));
    }

    public function getUserBadgeFrom(#[\SensitiveParameter] string $accessToken): UserBadge
    {
        $token = $this->known($accessToken) ?? throw new BadCredentialsException();
        $project = $this->entities->find(Project::class, (new RowId($token->project(), $token->project()))->criteria());
        $owner = null === $project ? null : $this->entities->find(User::class, $project->owner());
        if (null === $owner) {
            throw new BadCredentialsException();
        }
        $now = $this->clock->now()->setTimezone(new \DateTimeZone('UTC'));
        if (null === $token->usedAt() || $now->getTimestamp() - $token->usedAt()->getTimestamp() > self::EXACT) {
            $token->used($now);
            $this->entities->flush();
        }

        return new UserBadge($owner->getUserIdentifier(), static fn (): User => $owner);
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        return ErrorAnswer::of(401, 'no-token', 'This token is not known: it may have been withdrawn. The project’s owner makes another one, under Share.');
    }

    private function known(string $words): ?ProjectToken
    {
        $token = $this->entities->getRepository(ProjectToken::class)->findOneBy(['hash' => ProjectToken::hash($words)]);

        return true === $token?->isShownBy($words) ? $token : null;
    }
}
