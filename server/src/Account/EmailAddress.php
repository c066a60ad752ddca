<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

/**
 * An e-mail address in the one form that is stored, looked up and counted: Unicode's compatibility form (NFKC), lower case, without
 * blanks round it. What differs from that form in nothing else is the same address; what differs in anything else is another.
 */
final readonly class EmailAddress
{
    public const LONGEST = 180;

    private function __construct(public string $text)
    {
    }

    /** Null where a text is no address. */
    public static function of(string $text): ?self
    {
        $composed = \Normalizer::normalize(mb_scrub($text), \Normalizer::FORM_KC);
        $plain = mb_strtolower((string) preg_replace('/^[\s\pZ]+|[\s\pZ]+$/u', '', \is_string($composed) ? $composed : ''));

        return \strlen($plain) <= self::LONGEST && false !== filter_var($plain, \FILTER_VALIDATE_EMAIL) ? new self($plain) : null;
    }
}
