<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Server\Account\EmailAddress;
use Plinth\Server\Account\PasswordRule;
use Plinth\Server\Account\WeakPassword;

/** Who gets in, how often one may try, and where one is signed in. */
final class SignInTest extends TestCase
{
    public function testAnAddressHasOneForm(): void
    {
        foreach ([
            'noon.teal@plinth.example',
            ' Noon.Teal@PLINTH.example ',
            "noon.teal@plinth.example\t",
            'ｎoon.teal@plinth.example',
            "noon.teal\u{FF20}plinth.example",
        ] as $text) {
            self::assertSame('noon.teal@plinth.example', EmailAddress::of($text)?->text, $text);
        }
        foreach ([
            'nöon.teal@plinth.example',
            "no\u{0301}on.teal@plinth.example",
            "noon.teal@plinth.example\0",
            'noon.teal',
            '',
            str_repeat('a', 200).'@plinth.example',
        ] as $text) {
            self::assertNotSame('noon.teal@plinth.example', EmailAddress::of($text)?->text, $text);
        }
    }

    /** However an address is written, its account is guessed at no more often than by one way of writing it. */
    public function testVariantsOfOneAddressAreOneAddress(): void
    {
        $email = self::account();
        [$name, $host] = explode('@', $email);
        $sender = self::sender();
        $judged = 0;
        for ($i = 0; $i < 200; ++$i) {
            $variant = match ($i % 5) {
                0 => $email.str_repeat(' ', $i),
                1 => strtoupper(substr($name, 0, $i % \strlen($name))).substr($name, $i % \strlen($name))."@$host",
                2 => str_repeat("\u{00A0}", $i % 7).$email,
                3 => str_replace('a', ['á', 'à', 'â', 'ａ'][$i % 4], $email),
                default => "$name@".mb_convert_case($host, 0 === $i % 2 ? \MB_CASE_UPPER : \MB_CASE_TITLE),
            };
            [$status] = Client::ofStack()->send(
                'POST',
                '/api/sign-in',
                ['email' => $variant, 'password' => "guess number $i"],
                headers: self::headers($sender),
            );
            self::assertContains($status, [401, 429]);
            $judged += 401 === $status ? 1 : 0;
        }
        self::assertLessThanOrEqual(12, $judged, 'Five at once, then one after waits that double.');
        $email = self::account();
        // With the right password, accents and other letters are another address all the same.
        $other = self::sender();
        self::assertSame(
            401,
            Client::ofStack()->send(
                'POST',
                '/api/sign-in',
                ['email' => str_replace('a', 'á', $email), 'password' => Client::PASSWORD],
                headers: self::headers($other),
            )[0],
        );
        self::assertSame(
            200,
            Client::ofStack()->send(
                'POST',
                '/api/sign-in',
                ['email' => '  '.strtoupper($email), 'password' => Client::PASSWORD],
                headers: self::headers($other),
            )[0],
        );
    }

    /** Guessing from many places slows the account, but not for whom it belongs to, from where they have signed in before. */
    public function testManyGuessersLockNobodyOut(): void
    {
        $email = self::account();
        $home = self::sender();
        self::assertSame(
            200,
            Client::ofStack()->send(
                'POST',
                '/api/sign-in',
                ['email' => $email, 'password' => Client::PASSWORD],
                headers: self::headers($home),
            )[0],
        );
        $statuses = [];
        for ($i = 0; $i < 12; ++$i) {
            [$status, $answer] = Client::ofStack()->send(
                'POST',
                '/api/sign-in',
                ['email' => $email, 'password' => "wrong $i"],
                headers: self::headers(self::sender()),
            );
            $statuses[] = $status;
        }
        self::assertContains(429, $statuses, 'From wherever the guesses come, they are counted together.');
        self::assertSame([401, 401, 401, 401, 401], \array_slice($statuses, 0, 5));
        self::assertSame(
            429,
            Client::ofStack()->send(
                'POST',
                '/api/sign-in',
                ['email' => $email, 'password' => Client::PASSWORD],
                headers: self::headers(self::sender()),
            )[0],
            'Not even the right one, for a moment, from somewhere new.',
        );
        self::assertSame(
            200,
            Client::ofStack()->send(
                'POST',
                '/api/sign-in',
                ['email' => $email, 'password' => Client::PASSWORD],
                headers: self::headers($home),
            )[0],
        );
    }

    public function testAnotherSiteSignsNobodyIn(): void
    {
        $body = ['email' => self::account(), 'password' => Client::PASSWORD];
        foreach ([
            ['Sec-Fetch-Site: cross-site', 'Origin: https://elsewhere.example', 'Content-Type: text/plain'],
            ['Content-Type: text/plain'],
            ['csrf-token: csrf-token', 'Sec-Fetch-Site: cross-site'],
        ] as $headers) {
            self::assertSame(403, Client::ofStack()->send('POST', '/api/sign-in', $body, headers: $headers)[0]);
        }
    }

    /** Behind a proxy that ends TLS the client is told apart, the cookie travels by TLS alone, and the page's own origin may write. */
    public function testBehindAProxy(): void
    {
        $email = self::account();
        $headers = [
            'X-Forwarded-For: 203.0.113.9',
            'X-Forwarded-Proto: https',
            'X-Forwarded-Host: plans.example',
            'X-Forwarded-Port: 443',
            'Host: plans.example',
            'csrf-token: csrf-token',
            'Origin: https://plans.example',
        ];
        $client = Client::ofStack();
        self::assertSame(
            200,
            $client->send('POST', '/api/sign-in', ['email' => $email, 'password' => Client::PASSWORD], headers: $headers)[0],
        );
        self::assertMatchesRegularExpression('/^set-cookie: [^\r\n]*; secure/im', $client->head);
        self::assertMatchesRegularExpression('/^set-cookie: [^\r\n]*; httponly; samesite=lax/im', $client->head);
        self::assertSame(
            403,
            $client->send('POST', '/api/sign-out', [], headers: array_replace($headers, [6 => 'Origin: https://elsewhere.example']))[0],
        );
    }

    public function testSessionsAreListedAndEnded(): void
    {
        $email = self::account();
        $first = Client::ofStack()->signIn($email);
        $second = Client::ofStack()->signIn($email);
        $sessions = $second->ok('GET', '/api/account/sessions')['sessions'];
        self::assertIsArray($sessions);
        self::assertSame([true, false], array_column($sessions, 'here'), 'Newest first.');
        $second->ok('DELETE', '/api/account/sessions/'.Desk::text(array_column($sessions, 'id')[1]));
        self::assertSame('signed-out', $first->refused(401, 'GET', '/api/projects')['code']);
        $second->ok('GET', '/api/projects');
        Client::ofStack()->signIn()->refused(404, 'DELETE', '/api/account/sessions/'.Desk::text(array_column($sessions, 'id')[0]));
        $third = Client::ofStack()->signIn($email);
        $second->ok('DELETE', '/api/account/sessions');
        $third->refused(401, 'GET', '/api/projects');
        $second->refused(401, 'GET', '/api/projects');
        self::assertNull($third->ok('GET', '/api/account')['account']);
    }

    /** A working day without use is over; one with use goes on. */
    public function testASessionThatNobodyUsesEnds(): void
    {
        $email = self::account();
        $client = Client::ofStack()->signIn($email);
        $age = static fn (int $hours): int|false => Database::open()->exec(
            \sprintf(
                "UPDATE signed_in SET seen_at = %d WHERE account = (SELECT id FROM account WHERE email = '%s')",
                time() - 3600 * $hours,
                $email,
            ),
        );
        self::assertSame(1, $age(11));
        $client->ok('GET', '/api/projects');
        $client->ok('GET', '/api/projects');
        self::assertSame(1, $age(13));
        $client->refused(401, 'GET', '/api/projects');
        $client->signIn($email)->ok('GET', '/api/projects');
    }

    public function testAPasswordIsChangedByThePresentOne(): void
    {
        $email = self::account();
        $here = Client::ofStack()->signIn($email);
        $there = Client::ofStack()->signIn($email);
        $change = static fn (string $current, string $new): array => ['current' => $current, 'new' => $new];
        self::assertSame(
            'wrong-credentials',
            $here->refused(401, 'POST', '/api/account/password', $change('not this one at all', 'umber kettle drifts twice'))['code'],
        );
        self::assertSame(
            'weak-password',
            $here->refused(422, 'POST', '/api/account/password', $change(Client::PASSWORD, 'password12345678'))['code'],
        );
        $here->ok('POST', '/api/account/password', $change(Client::PASSWORD, 'umber kettle drifts twice'));
        $here->ok('GET', '/api/projects');
        $there->refused(401, 'GET', '/api/projects');
        Client::ofStack()->refused(401, 'POST', '/api/sign-in', ['email' => $email, 'password' => Client::PASSWORD]);
        Client::ofStack()->ok('POST', '/api/sign-in', ['email' => $email, 'password' => 'umber kettle drifts twice']);
    }

    /**
     * NIST SP 800-63B-4, 3.1.1.2 (from memory): long enough, nothing common, repeated, in a row or known of the account; no more than that.
     */
    public function testWhatAPasswordMustBe(): void
    {
        foreach ([
            'umber kettle drifts twice',
            'Überlange Straßenbahnhaltestelle',
            'aaaa bbbb unlikely gravel outpaces',
            '日本語の長い合言葉は何でもよい場合がある',
            str_repeat('gravel noon kettle ', 13),
        ] as $good) {
            PasswordRule::check($good, 'noon.teal@plinth.example', 'Noon Teal');
            $this->addToAssertionCount(1);
        }
        foreach ([
            'short but odd',
            'password12345678',
            'P@ssw0rdP@ssw0rd',
            'qwertyuiopasdfghjkl',
            'aaaaaaaaaaaaaaaaaaaa',
            'abcabcabcabcabcabc',
            '123456789012345678',
            'noon.teal@plinth.example',
            'nooonteal 2026 2026 2026',
            'zestyplinthzestyplinth',
            'correcthorsebatterystaple',
            'iloveyou iloveyou 123',
            'lkjhgfdsapoiuytrewq',
        ] as $bad) {
            try {
                PasswordRule::check($bad, 'noon.teal@plinth.example', 'Noon Teal');
                self::fail("“{$bad}” was let pass.");
            } catch (WeakPassword $e) {
                self::assertStringEndsWith('.', $e->getMessage());
            }
        }
    }

    /** What an account and its projects leave behind, once they are removed by command, is nothing. */
    public function testAccountsAndProjectsAreRemovedByCommand(): void
    {
        $email = self::account();
        $heir = self::account();
        $desk = new Desk(Client::ofStack()->signIn($email));
        $desk->change([$desk->chain([[0, 0], [3000, 0]])['operation']]);
        $gone = new Desk($desk->client);
        self::assertSame(0, self::console("plinth:project:remove $gone->id"));
        $desk->client->refused(404, 'GET', "/api/projects/$gone->id");
        self::assertSame(2, self::console("plinth:account:remove $email"), 'Not while projects are theirs.');
        self::assertSame(0, self::console("plinth:account:remove $email --projects-to=$heir"));
        $desk->client->refused(401, 'GET', '/api/projects');
        Client::ofStack()->refused(401, 'POST', '/api/sign-in', ['email' => $email, 'password' => Client::PASSWORD]);
        self::assertSame('owner', Client::ofStack()->signIn($heir)->ok('GET', "/api/projects/$desk->id")['role']);
        self::assertSame(0, self::console("plinth:account:remove $heir --with-projects"));
        $left = Database::open()->query("SELECT COUNT(*) FROM wall WHERE project = UNHEX('".str_replace('-', '', $desk->id)."')");
        self::assertNotFalse($left);
        self::assertEquals(0, $left->fetchColumn());
    }

    /** A new account, its address. */
    private static function account(): string
    {
        $email = 'amber'.bin2hex(random_bytes(5)).'@plinth.example';
        self::assertSame(0, self::console("plinth:account:create $email Amber"));

        return $email;
    }

    private static function console(string $command): int
    {
        exec(
            'echo '.escapeshellarg(Client::PASSWORD).' | PHP_INI_SCAN_DIR=: php -d pcov.enabled=0 '.escapeshellarg(\dirname(__DIR__).'/bin/console')." $command --no-interaction 2>&1",
            $out,
            $code,
        );

        return $code;
    }

    /** An address that has never sent anything before (documentation range, RFC 3849). */
    private static function sender(): string
    {
        return \sprintf('2001:db8:%x:%x::1', random_int(0, 0xFFFF), random_int(0, 0xFFFF));
    }

    /** @return list<string> */
    private static function headers(string $sender): array
    {
        return ['csrf-token: csrf-token', 'Sec-Fetch-Site: same-origin', "X-Forwarded-For: $sender"];
    }
}
