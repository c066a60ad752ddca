<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Plinth\Server\Http\ErrorAnswer;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\Authentication\AuthenticationFailureHandlerInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationSuccessHandlerInterface;

final readonly class SignInAnswer implements AuthenticationSuccessHandlerInterface, AuthenticationFailureHandlerInterface
{
    public function __construct(private SignInThrottle $throttle)
    {
    }

    public function onAuthenticationSuccess(Request $request, TokenInterface $token): Response
    {
        $user = $token->getUser();
        \assert($user instanceof User);
        $this->throttle->forget($request);

        return new JsonResponse(['account' => ['id' => $user->id()->toRfc4122(), 'name' => $user->name(), 'email' => $user->getUserIdentifier()]]);
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        if ($exception instanceof TooManySignIns) {
            return ErrorAnswer::of(429, 'too-many-tries', $exception->getMessageKey());
        }
        $this->throttle->count($request);

        return ErrorAnswer::of(401, 'wrong-credentials', 'This address and password do not belong together. Check both and try again.', 'password');
    }
}
