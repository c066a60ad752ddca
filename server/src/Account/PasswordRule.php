<?php

declare(strict_types=1);

namespace Plinth\Server\Account;

/**
 * What a password must be: long, and not one that anybody would try first. No demands on kinds of characters and no expiry.
 * NIST SP 800-63B-4, section 3.1.1.2, from memory: at least 15 characters where the password stands alone, at least 64
 * allowed, every character of Unicode counted once, blocklists of what is common, repeated, sequential, or known of the account.
 */
final class PasswordRule
{
    public const SHORTEST = 15;
    public const LONGEST = 256;
    /** Words that common passwords are built of (from memory: they lead every published list of leaked passwords). */
    private const COMMON = [
        'password', 'passwort', 'passw', 'qwertyuiop', 'qwerty', 'qwertz', 'azerty', 'asdfgh', 'zxcvbn', 'iloveyou', 'letmein', 'welcome', 'monkey', 'dragon', 'sunshine', 'princess', 'football',
        'baseball', 'superman', 'batman', 'trustno', 'admin', 'administrator', 'master', 'secret', 'changeme', 'login', 'hello', 'freedom', 'whatever', 'shadow', 'michael', 'jennifer', 'jordan', 'correcthorsebatterystaple',
    ];
    private const ROWS = ['abcdefghijklmnopqrstuvwxyz', '01234567890', 'qwertyuiop', 'qwertzuiop', 'asdfghjkl', 'yxcvbnm', 'zxcvbnm'];
    /** characters that must remain once all that anybody would try is taken out */
    private const LEAST_OWN = 8;

    /** @throws WeakPassword in words for whoever chose it */
    public static function check(#[\SensitiveParameter] string $password, string $email, string $name): void
    {
        if (!mb_check_encoding($password, 'UTF-8') || mb_strlen($password) < self::SHORTEST) {
            throw WeakPassword::because(
                \sprintf('A password needs at least %d characters. A few unrelated words with blanks between are good.', self::SHORTEST),
            );
        }
        if (mb_strlen($password) > self::LONGEST) {
            throw WeakPassword::because(\sprintf('A password has at most %d characters.', self::LONGEST));
        }
        $plain = strtr(mb_strtolower($password), [
            '0' => 'o',
            '1' => 'l',
            '3' => 'e',
            '4' => 'a',
            '@' => 'a',
            '5' => 's',
            '$' => 's',
            '7' => 't',
            '!' => 'i',
        ]);
        foreach ([mb_strtolower($password), $plain] as $text) {
            $own = self::ownPart($text, [...self::wordsOf($email), ...self::wordsOf($name), 'zesty', 'plinth']);
            if (mb_strlen($own) < self::LEAST_OWN) {
                throw WeakPassword::because(
                    'This password is among the first that anybody would try: common words, your own name, rows of keys or the same again and again. Choose unrelated words.',
                );
            }
        }
    }

    /**
     * The text without what is common, known of the account, in a row, or said before.
     *
     * @param list<string> $known
     */
    private static function ownPart(string $text, array $known): string
    {
        foreach ([...self::COMMON, ...$known] as $word) {
            $text = str_replace($word, ' ', $text);
        }
        foreach (self::ROWS as $row) {
            foreach ([$row, strrev($row)] as $way) {
                for ($length = \strlen($way); $length >= 4; --$length) {
                    for ($i = 0; $i + $length <= \strlen($way); ++$i) {
                        $text = str_replace(substr($way, $i, $length), ' ', $text);
                    }
                }
            }
        }
        // What comes again right behind itself counts once, and what is left of blanks and years not at all.
        $text = (string) preg_replace('/(.{1,12}?)\1+/u', '$1', $text);

        return (string) preg_replace('/[\s\p{P}\p{S}]+|(19|20)\d\d/u', '', $text);
    }

    /** @return list<string> */
    private static function wordsOf(string $text): array
    {
        return array_values(
            array_filter(
                (array) preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text)),
                static fn (mixed $w): bool => \is_string($w) && mb_strlen($w) >= 3,
            ),
        );
    }
}
