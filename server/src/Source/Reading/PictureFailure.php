<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Server\Job\Failed;

final class PictureFailure extends Failed
{
    private function __construct(string $words, bool $mayTryAgain = false)
    {
        parent::__construct($words, 'unreadable-picture', $mayTryAgain);
    }

    public static function tooLong(float $seconds): self
    {
        return new self(\sprintf('This picture took longer than %.0f seconds to read and was given up.', $seconds));
    }

    public static function missing(): self
    {
        return new self('What this is made from is missing or damaged in the store of files. Have the page read again.');
    }

    public static function unsafe(string $words): self
    {
        return new self($words);
    }

    public static function noSandbox(): self
    {
        return new self(
            'This machine allows no sandbox, so no file is opened. Whoever runs the server finds in its documentation what to do.',
        );
    }

    public static function of(string $errors, bool $wasKilled = false): self
    {
        if ($wasKilled) {
            return new self('Reading this file was broken off on the server. Try again.', mayTryAgain: true);
        }

        return new self(match (1) {
            preg_match('/no space left|write (error|failed)/i', $errors) => 'The server’s disk is full. Make room and try again.',
            preg_match(
                '/incorrect password|encrypted/i',
                $errors,
            ) => 'This PDF is locked with a password. Open it where you know the password, save it without, and bring that in.',
            preg_match(
                '/last page \(0\)/i',
                $errors,
            ) => 'This file holds no pages that can be shown: it is empty or damaged. Save or scan it again.',
            preg_match(
                '/premature|truncat|unexpected end|end of (file|stream)|not enough data|out of order read|read error|CRC|IDAT/i',
                $errors,
            ) => 'This file is incomplete: its picture ends too early. Copy or scan it again.',
            preg_match('/out of memory|cannot allocate|unable to allocate/i', $errors) => 'This picture needs more memory than is allowed.',
            default => 'This file cannot be read as a picture: it is damaged, or of a kind that is not supported.',
        });
    }
}
