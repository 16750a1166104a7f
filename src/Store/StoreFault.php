<?php

declare(strict_types=1);

namespace App\Store;

/** The file store cannot keep or give what it is asked. */
final class StoreFault extends \RuntimeException
{
    public static function full(?\Throwable $cause): self
    {
        return new self(
            'The disk of the server did not take the file whole; nothing was kept. Free some space, then try again.',
            0,
            $cause,
        );
    }

    public static function lost(string $hash, ?\Throwable $cause): self
    {
        return new self(
            \sprintf('The stored file %s… is not there any more. Bring it again, or restore it from a backup.', substr($hash, 0, 10)),
            0,
            $cause,
        );
    }

    public static function damaged(string $hash): self
    {
        $what = 'The stored file %s… is damaged: its contents are not those that were kept. Bring it again, or restore it from a backup.';

        return new self(\sprintf($what, substr($hash, 0, 10)));
    }
}
