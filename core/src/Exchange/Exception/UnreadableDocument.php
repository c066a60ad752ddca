<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Exception;

use Plinth\Core\Fault\Fault;

/** A document that breaks its format; `at` is the path of the value, such as `storeys/0/walls/3/thickness`. */
final class UnreadableDocument extends \DomainException implements Fault
{
    private function __construct(string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function notJson(string $reason): self
    {
        return new self(\sprintf('The text is not JSON: %s.', $reason), '');
    }

    /** @param string $at name of what is damaged in it; none where it cannot be read as a whole */
    public static function damaged(string $at, string $why): self
    {
        $what = '' === $at ? 'This is no whole ZIP file' : "“{$at}” is damaged";

        return new self(\sprintf('%s: %s. Take it anew from where it was made.', $what, $why), $at);
    }

    public static function wrongType(string $at, string $expected, mixed $found): self
    {
        return new self(\sprintf('Expected %s at %s, found %s.', $expected, self::place($at), get_debug_type($found)), $at);
    }

    public static function unknownKey(string $at): self
    {
        return new self(\sprintf('There is no such key: %s.', $at), $at);
    }

    public static function missingKey(string $at): self
    {
        return new self(\sprintf('%s is missing.', $at), $at);
    }

    public static function outOfRange(string $at, string $what): self
    {
        return new self(\sprintf('%s must be %s.', self::place($at), $what), $at);
    }

    public static function unknownReference(string $at, string $what): self
    {
        return new self(\sprintf('%s names a %s that is not in the document.', self::place($at), $what), $at);
    }

    public static function repeatedId(string $at, string $id): self
    {
        return new self(\sprintf('The id “%s” at %s is used twice.', $id, self::place($at)), $at);
    }

    private static function place(string $at): string
    {
        return '' === $at ? 'the top' : $at;
    }

    public function why(): string
    {
        return 'unreadable-document';
    }

    public function at(): string
    {
        return $this->at;
    }
}
