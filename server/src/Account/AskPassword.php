<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

use Symfony\Component\Console\Style\SymfonyStyle;

/** A password for a command: asked for unseen, or the first line of standard input. */
final class AskPassword
{
    public static function from(SymfonyStyle $io): string
    {
        $password = stream_isatty(\STDIN) ? $io->askHidden('Password') : rtrim((string) fgets(\STDIN), "\r\n");

        return \is_string($password) ? $password : '';
    }
}
