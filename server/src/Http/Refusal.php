<?php

declare(strict_types=1);

namespace Plinth\Server\Http;

/** A request that cannot be carried out, with its HTTP status, a stable code, words and the place concerned. */
final class Refusal extends \RuntimeException
{
    /** @param array<string, mixed> $more */
    private function __construct(
        public readonly int $status,
        public readonly string $reason,
        string $message,
        public readonly string $at = '',
        public readonly array $more = [],
    ) {
        parent::__construct($message);
    }

    public static function notFound(): self
    {
        return new self(404, 'not-found', 'There is nothing here, or it is not yours.');
    }

    public static function invalid(string $reason, string $message, string $at = ''): self
    {
        return new self(422, $reason, $message, $at);
    }

    /** @param array<string, mixed> $more the rows as they are now */
    public static function conflict(string $reason, string $message, string $at = '', array $more = []): self
    {
        return new self(409, $reason, $message, $at, $more);
    }

    public static function tooLarge(string $message, string $at = ''): self
    {
        return new self(413, 'too-large', $message, $at);
    }

    /** More than one request may ask for; judged, so that it is not sent again as it is. */
    public static function tooMuch(string $message, string $at = ''): self
    {
        return new self(413, 'too-much', $message, $at);
    }

    public static function beingMade(): self
    {
        return new self(409, 'not-ready', 'The pictures of this page are missing here, or are being made.');
    }

    public static function noRoom(): self
    {
        return new self(
            507,
            'disk-full',
            'The server’s disk is nearly full, so nothing was taken in. Make room and bring the file in again.',
            'file',
        );
    }

    public static function signedOut(): self
    {
        return new self(401, 'signed-out', 'Sign in first; unsent work is kept and goes on afterwards.');
    }

    public static function otherAccount(): self
    {
        return new self(
            401,
            'other-account',
            'Somebody else has signed in here meanwhile. Sign in as yourself and your unsaved work goes on.',
        );
    }

    public static function noRoomForChanges(): self
    {
        return new self(
            507,
            'disk-full',
            'The server’s disk is nearly full, so nothing more is written. What was saved before is safe; this is kept here and can go on once there is room.',
        );
    }

    public static function readOnly(): self
    {
        return new self(403, 'read-only-project', 'This project is shared with you to read: ask its owner to let you change it.');
    }

    public static function tokenReads(): self
    {
        return new self(403, 'token-reads', 'A token reads the project that it was made for, and does nothing else.');
    }

    public static function ownerOnly(): self
    {
        return new self(403, 'owner-only', 'Only the owner of a project says who sees it, and puts it into the bin.');
    }

    public static function inBin(string $name): self
    {
        return new self(410, 'in-bin', \sprintf('“%s” is in its owner’s bin. It can be put back from the list of projects.', $name));
    }

    public static function crossOrigin(): self
    {
        return new self(403, 'other-origin', 'This request did not come from the application itself.');
    }
}
