<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Plinth\Server\Http\ErrorAnswer;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;

final class SignInRequired implements AuthenticationEntryPointInterface
{
    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        return ErrorAnswer::of(401, 'signed-out', 'Sign in first; unsent work is kept and goes on afterwards.');
    }
}
